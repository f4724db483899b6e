import { expect, type Locator } from "@playwright/test";

/** A pair of hands that counts: presses are clicks, taps and choices, keys are characters typed. */
export class Hand {
  presses = 0;
  keys = 0;
  /** Of the bench, each of a run of like steps where there is one: counted apart. */
  ticks = 0;

  async press(what: Locator): Promise<void> {
    this.presses++;
    await what.click();
  }

  async tick(what: Locator): Promise<void> {
    this.ticks++;
    await what.click();
  }

  async choose(what: Locator, option: string): Promise<void> {
    this.presses++;
    await what.selectOption({ label: option });
  }

  /** Presses into a field and types over what stands in it. */
  async type(field: Locator, text: string): Promise<void> {
    this.presses++;
    await this.typeOn(field, text);
  }

  /** Types where the cursor is already; that it is there is checked. */
  async typeHere(field: Locator, text: string): Promise<void> {
    await expect(field).toBeFocused();
    await this.typeOn(field, text);
  }

  async enter(field: Locator): Promise<void> {
    this.keys++;
    await field.press("Enter");
  }

  private async typeOn(field: Locator, text: string): Promise<void> {
    this.keys += text.length;
    await field.fill(text);
  }
}
