"use client";

import { Plus, Trash2 } from "lucide-react";
import { OWN_ROLES } from "@/core/fixture";
import { OWN_ROLE_WORDS, type Plan } from "@/core/job";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { TextField } from "../parts/TextField";
import { withFixture } from "./Elements";

type Own = NonNullable<NonNullable<Plan["fixture"]>["own"]>[number];

const MOST = 20;

/** What somebody has of his own to hold with: what it is called, whose work it does, and how many there are. */
export function OwnThings() {
  const { plan, edit, field, forget } = usePlanField();
  const own = plan.fixture?.own ?? [];
  const set = (next: Own[]) => edit((p) => withFixture(p, { own: next.length > 0 ? next : undefined }));
  const change = (id: string, by: Partial<Own>) => set(own.map((o) => (o.id === id ? { ...o, ...by } : o)));
  const free = Array.from({ length: 99 }, (_, i) => `E${i + 1}`).find((id) => !own.some((o) => o.id === id));
  return (
    <div className="grid gap-3" data-testid="own-things">
      <ul className="grid gap-3">
        {own.map((o, i) => (
          <li key={o.id} className="grid grid-cols-2 items-end gap-3 border-t border-line pt-3">
            <div className="col-span-2 grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
              <TextField
                label={`What ${o.id} is`}
                maxLength={40}
                value={o.name}
                onChange={(name) => change(o.id, { name })}
              />
              <Button
                look="quiet"
                aria-label={`Take ${o.id} off the shelf`}
                onClick={() => {
                  forget(`fixture.own.${o.id}.`);
                  set(own.filter((x) => x.id !== o.id));
                }}
              >
                <Trash2 size={18} aria-hidden="true" />
              </Button>
            </div>
            <SelectField
              label={`${o.id} serves as`}
              value={o.does}
              options={OWN_ROLES.map((r) => [r, OWN_ROLE_WORDS[r]] as const)}
              onChange={(does) => change(o.id, { does })}
            />
            <NumberField
              label={`How many of ${o.id}`}
              unit=""
              min={0}
              max={999}
              value={o.count}
              {...field(`fixture.own.${i}.count`, `fixture.own.${o.id}.count`)}
              onChange={(n) => n !== null && change(o.id, { count: Math.round(n) })}
            />
          </li>
        ))}
      </ul>
      <Button
        className="justify-self-start"
        disabled={!free || own.length >= MOST}
        onClick={() => free && set([...own, { id: free, name: "", does: "stop", count: 1 }])}
      >
        <Plus size={18} aria-hidden="true" /> Something of your own
      </Button>
    </div>
  );
}
