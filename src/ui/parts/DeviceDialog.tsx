"use client";

import { useId, useState } from "react";
import { Choice } from "./Choice";
import { Dialog } from "./Dialog";
import { setDevice, useDevice } from "./device";
import { FieldFrame, FieldMessage, inputClass } from "./Field";
import { askToTell, mayTell } from "./tell";

/** Who uses this device and how it looks. Kept on the device only. */
export function DeviceDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const device = useDevice();
  const id = useId();
  const [refused, setRefused] = useState(false);
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="This device"
      description="Kept here only. The name is written beside every reading and tick."
    >
      <div className="grid gap-4">
        <FieldFrame id={id} label="Who is at this device">
          <input
            id={id}
            className={inputClass(false, false, false)}
            value={device.who}
            maxLength={48}
            autoComplete="off"
            onChange={(e) => setDevice({ who: e.target.value })}
          />
        </FieldFrame>
        <Choice
          label="Light"
          value={device.theme}
          onChange={(theme) => setDevice({ theme })}
          options={[
            ["system", "As the system"],
            ["light", "Day"],
            ["dark", "Night shift"],
            ["glare", "Bright sun"],
          ]}
        />
        <Choice
          label="Drawing turned by"
          value={String(device.turn)}
          onChange={(turn) => setDevice({ turn: Number(turn) as 0 | 1 | 2 | 3 })}
          options={[
            ["0", "as drawn"],
            ["1", "a quarter"],
            ["2", "a half"],
            ["3", "three quarters"],
          ]}
        />
        <Choice
          label="Own keys for readings"
          value={device.keypad}
          onChange={(keypad) => setDevice({ keypad })}
          options={[
            ["touch", "On touch screens"],
            ["always", "Always"],
            ["never", "Never"],
          ]}
        />
        <Choice
          label="The free hand"
          value={device.hand}
          onChange={(hand) => setDevice({ hand })}
          options={[
            ["right", "right"],
            ["left", "left"],
          ]}
        />
        <Choice
          label="What is read next is"
          value={device.speaks ? "said" : "shown"}
          onChange={(how) => setDevice({ speaks: how === "said" })}
          options={[
            ["shown", "shown"],
            ["said", "shown and said aloud"],
          ]}
        />
        <Choice
          label="Readings are"
          value={device.hears ? "said" : "typed"}
          onChange={(how) => setDevice({ hears: how === "said" })}
          options={[
            ["typed", "typed"],
            ["said", "typed, or said: heard on this device alone"],
          ]}
        />
        <Choice
          label="When a wait is over"
          value={device.rings ? (device.tells && mayTell() ? "tells" : "rings") : "quiet"}
          onChange={async (how) => {
            const may = how !== "tells" || (await askToTell());
            setRefused(!may);
            setDevice({ rings: how !== "quiet", tells: how === "tells" && may });
          }}
          options={[
            ["rings", "it rings and shakes"],
            ["tells", "also told while the page is not in sight"],
            ["quiet", "it is shown"],
          ]}
        />
        {refused ? (
          <FieldMessage severity="warning">
            This browser does not let the page tell you: allow notifications for this address in its settings. It rings
            as long as the page is open.
          </FieldMessage>
        ) : null}
      </div>
    </Dialog>
  );
}
