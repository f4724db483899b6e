import { BENCH, expect, expectAccessible, saved, startJob, test } from "./fixtures";

test("a butted pump base: a level by its bubble, a tape from its mark, crosses set in, a cap on each end", async ({
  page,
  address,
}) => {
  test.slow();
  const job = await startJob(page, address, "Pump base");
  const list = page.getByRole("list", { name: "Readings of this round" });
  const field = page.locator("form input").first();

  await test.step("frame: butted corners, a gap, the top ground, caps", async () => {
    await page.goto(`${address}${job}/frame`);
    await page.getByLabel("Length AB, CD").fill("760");
    await page.getByLabel("Width BC, DA").fill("560");
    await page.getByLabel("Corners are").selectOption("butted, AB and CD run through");
    await page.getByLabel(/^Root gap/).fill("1");
    await page.getByLabel("Ground flush afterwards").selectOption("the top face");
    await page.getByLabel("Open ends").selectOption("get a cap each");
    await page.getByRole("button", { name: "Member BC" }).click();
    await expect(page.getByText("short point")).toContainText("478.0 mm");
    await expect(page.getByTestId("now")).toContainText("760 mm × 560 mm, butted");
    await expectAccessible(page);
    await saved(page);
    await page.goto(`${address}${job}/cut`);
    await expect(page.getByRole("row").filter({ hasText: "AB, CD" })).toContainText("760.0 mm");
  });

  await test.step("bed: stepped along the sides, the bubble in divisions, turned end for end", async () => {
    await page.goto(`${address}${job}/bed`);
    await page.getByLabel("Read the next ones by").selectOption({ label: "level or angle gauge, rest to rest" });
    await expect(page.getByText("Slope up to it from R1, with the level's feet on both")).toBeVisible();
    await page.getByLabel("Instrument in hand").selectOption({ label: "Spirit level, 1.2 m" });
    await page.getByRole("button", { name: /By the bubble/ }).click();
    await page.getByRole("button", { name: "Keep what the level says" }).click();
    await expect(page.getByText(/Say what one division of this level is/)).toBeVisible();
    await page.getByLabel(/One division is/).fill("0.3");
    await page.getByRole("group", { name: "The bubble sits toward" }).getByText("R2").click();
    await page.getByLabel(/By how many divisions/).fill("1.5");
    await page.getByRole("button", { name: "Turned end for end too" }).click();
    await page.getByRole("group", { name: "Turned end for end, it sits toward" }).getByText("R2").click();
    await page.getByLabel(/By how many divisions, turned/).fill("0.5");
    await expect(
      page.getByText("R2 is the higher end, by 0.30 mm/m; the level itself is out by 0.15 mm/m."),
    ).toBeVisible();
    await expectAccessible(page);
    await page.getByRole("button", { name: "Keep what the level says" }).click();
    await expect(list.getByRole("button", { name: /R2 level R1/ })).toContainText("(2×)");
    // Along the side, not across: after the corner at R2 comes the one beside it.
    await expect(page.getByLabel("To", { exact: true })).toHaveValue("R4");
    // Read from elsewhere it is still the same rest that is read.
    await page.getByLabel("From", { exact: true }).selectOption("R3");
    await expect(page.getByLabel("To", { exact: true })).toHaveValue("R4");
  });

  await test.step("square: from the 100 mm mark, crosses 15 in, two diagonals alone", async () => {
    await page.setViewportSize(BENCH);
    await page.goto(`${address}${job}/square`);
    await page.getByLabel("Instrument in hand").selectOption({ label: "Steel tape from the 100 mm mark" });
    await page.getByRole("button", { name: /How it is taped/ }).click();
    await page.getByLabel(/Crosses set in/).fill("15");
    const tape = async (span: string, text: string, shown: string) => {
      await list.getByRole("button", { name: new RegExp(`^${span}`) }).click();
      await expect(page.getByText(`Tape ${span[0]} to ${span[1]}, cross to cross`)).toBeVisible();
      await field.fill(text);
      await field.press("Enter");
      await expect(list.getByRole("button", { name: new RegExp(`^${span}`) })).toContainText(shown);
    };
    // 730 by 530 between the crosses: 902.1 across.
    await tape("AC", "1003.5", "903.5");
    // What comes after the first reading of a round is what follows it, not what is first on the list.
    await expect(page.getByRole("button", { name: "Keep BD", exact: true })).toBeVisible();
    await tape("BD", "1001", "901");
    await expect(page.getByTestId("now")).toContainText(
      /Slide side (CD|AB): push corner [A-D] toward [A-D] by 1\.\d\smm/,
    );
    await expect(page.getByTestId("now")).toContainText("two diagonals alone, the sides as drawn");
    await list.getByRole("button", { name: /^AC/ }).click();
    await expect(list.getByRole("button", { name: /^AC/ })).toContainText(
      "1003.5 from the 100 mm mark, crosses set in by 15 mm",
    );
    await field.fill("1009");
    await field.press("Enter");
    await expect(page.getByTestId("now")).toContainText("Is it so far off? Read AB, BC, CD first.");
    await expectAccessible(page);
    await saved(page);
  });

  await test.step("log and file: the mark is taken off, what was read stands beside it", async () => {
    await page.goto(`${address}${job}/log`);
    await expect(page.getByText("BD 901 mm (read 1001 from the 100 mm mark, crosses set in by 15 mm)")).toBeVisible();
    const csv = await (await page.request.get(`${address}/api${job}/readings`)).text();
    const row = csv.split("\r\n").find((l) => l.includes(",BD,"));
    expect(row).toContain(",BD,901,1001,1001,mm,");
  });
});

test("leaves in the wrong unit are asked about, and an interval is read as people say it", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Test frame in inches", "inch, fractions");
  await page.goto(`${address}${job}/square`);
  await page.getByRole("button", { name: /Something else to read/ }).click();
  await page.getByLabel("Read one more thing").selectOption("a gap at a joint");
  await page.getByRole("button", { name: "Put it on the list" }).click();
  const field = page.locator("form input").first();
  await expect(page.getByText(/Widest gap at joint/)).toBeVisible();
  await field.fill("0.25");
  await field.press("Enter");
  await page.getByRole("button", { name: "It was 0.25 mm: keep that" }).click();
  const list = page.getByRole("list", { name: "Readings of this round" });
  await expect(list.getByRole("button", { name: /^gap/ })).toContainText("0.25 mm");
  await list.getByRole("button", { name: /^gap/ }).click();
  await field.fill("goes 55, not 50 thou");
  await field.press("Enter");
  await expect(page.getByText(/must be thicker than what goes/)).toBeVisible();
  await field.fill("20 + 35 not 60 thou");
  await expect(page.getByText(/0\.058\sin.*goes 20 \+ 35\sthou, not 60\sthou/)).toBeVisible();
  await field.press("Enter");
  await expect(list.getByRole("button", { name: /^gap/ })).toContainText("0.0575");
  // What it does, in inches, and what to do about it; filled, it is counted from then on.
  const gap = page.getByTestId("gap-B");
  await gap.getByRole("button", { name: "What the gap at B does" }).click();
  await expect(gap.getByTestId("gap-advice")).toContainText(/B stands open by .+in/, { timeout: 300_000 });
  await expect(gap.getByTestId("gap-advice")).toContainText(/filled: .+; shut: /);
  await expect(gap.getByTestId("gap-advice")).not.toContainText(/mm|N\b/);
  // Wider on one face than on the other: each is said by itself, and what was worked out of the even gap is gone.
  await gap.getByRole("radio", { name: "face by face" }).click();
  await gap.getByLabel(/^Top face/).fill("1/16");
  await gap.getByLabel(/^Bottom face/).fill("");
  await expect(gap.getByTestId("gap-advice")).toHaveCount(0);
  await gap.getByRole("button", { name: "What the gap at B does" }).click();
  await expect(gap.getByTestId("gap-advice")).toContainText(/B stands open by .*1\/16\sin at its top face/, {
    timeout: 300_000,
  });
  await expect(gap.getByTestId("gap-advice")).not.toContainText(/bottom face|mm|N\b/);
  await gap.getByRole("button", { name: "It is filled so: count it" }).click();
  await expect(gap).toContainText("counted in the forecast as filled");
  await gap.getByRole("button", { name: "It is shut now: count it no more" }).click();
  await expect(gap).not.toContainText("counted in the forecast");
  // A point beside the frame is taped to.
  await page.getByLabel("Right of A").fill("60");
  await page.getByLabel("Up from A").fill("12");
  await page.getByRole("button", { name: "Add the point" }).click();
  await page.getByLabel("Read one more thing").selectOption("a distance between two places");
  await page.getByLabel("From", { exact: true }).selectOption("B");
  await page.getByLabel("to", { exact: true }).selectOption("P1");
  await page.getByRole("button", { name: "Put it on the list" }).click();
  await expect(page.getByText("Tape from B to P1")).toBeVisible();
  await expectAccessible(page);
  await saved(page);
});

test("a frame from nothing: by angle up to a face, a near miss brought to it, parts where one points", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Drawn from nothing");
  await page.goto(`${address}${job}/frame`);
  await page.getByRole("button", { name: "Start with nothing" }).click();
  await expect(page.getByTestId("now")).toContainText("no member yet");
  await page.getByLabel("To, x").fill("1000");
  await page.getByRole("button", { name: "Add the member" }).click();
  await expect(page.getByTestId("now")).toContainText("1 member");
  // From its end, at an angle, so long.
  await page.getByLabel("Begins at").selectOption("M1, its end");
  await page.getByLabel("and goes").selectOption("at an angle, so long");
  await page.getByLabel(/Angle from the line of M1/).fill("90");
  await page.getByLabel("Length", { exact: true }).fill("600");
  await page.getByRole("button", { name: "Add the member" }).click();
  // A brace from M1's start until it meets M2.
  await page.getByLabel("Begins at").selectOption("M1, its start");
  await page.getByLabel("and goes").selectOption("at an angle, until it meets");
  await page.getByLabel(/Angle from the line of M1/).fill("160");
  await page.getByLabel("until it meets").selectOption("M2");
  await page.getByRole("button", { name: "Add the member" }).click();
  await expect(page.getByText(/lies behind|passes M2/)).toBeVisible();
  await page.getByLabel(/Angle from the line of M1/).fill("-155");
  await page.getByRole("button", { name: "Add the member" }).click();
  await expect(page.getByTestId("now")).toContainText("3 members");
  // Ten short of M1.
  await page.getByLabel("Begins at").selectOption("a place, below");
  await page.getByLabel("From, x").fill("500");
  await page.getByLabel("From, y").fill("-30");
  await page.getByLabel("and goes").selectOption("on by x, y, z");
  await page.getByLabel("On by, x").fill("0");
  await page.getByLabel("On by, y").fill("-400");
  await page.getByRole("button", { name: "Add the member" }).click();
  await expect(page.getByText(/M4 ends 10\smm short of M1: joints are found up to 3\smm/)).toBeVisible();
  await page.getByRole("button", { name: "Bring M4 to M1" }).click();
  await expect(page.getByText(/M4 ends/)).toHaveCount(0);
  await page.getByRole("button", { name: /Plates, feet, caps/ }).click();
  await page.getByLabel("Put a part on").selectOption({ label: "M4, its end (open)" });
  await page.getByRole("button", { name: "cap", exact: true }).click();
  await expect(page.getByLabel("P1 is a")).toHaveValue("cap");
  await page.getByRole("button", { name: /a cap on each open end/ }).click();
  await page.getByRole("button", { name: /P2, cap/ }).click();
  await expect(page.getByLabel("P2 is a")).toHaveValue("cap");
  await expectAccessible(page);
  await saved(page);
});
