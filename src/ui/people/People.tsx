"use client";

import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { Button } from "../parts/Button";
import { Dialog } from "../parts/Dialog";
import { QrCode } from "../parts/QrCode";
import { SelectField } from "../parts/SelectField";
import { Now, Section } from "../parts/Sheet";
import { SidePage } from "../parts/SidePage";
import { TextField } from "../parts/TextField";
import { When } from "../parts/When";
import { ChangePassword } from "./ChangePassword";
import { originForOthers, send } from "./send";

type Role = "owner" | "welder" | "looks";
const ROLES: readonly (readonly [Role, string])[] = [
  ["welder", "welder: works on jobs"],
  ["looks", "looks: changes nothing"],
  ["owner", "owner: also lets people in and out"],
];

/** What an owner sees of the shop's people. */
interface Shop {
  shop: string;
  people: { id: string; name: string; role: Role; hasPassword: boolean; leftAt: string | null }[];
  devices: { id: string; personId: string; name: string; seenAt: string }[];
  audit: { at: string; by: string; what: string; about: string }[];
  you: string | null;
  device: string | null;
  /** Under which address others reach the server. */
  address: string | null;
}

interface Invitation {
  name: string;
  code: string;
  hours: number;
}

function Invited({
  invitation,
  outside,
  onClose,
}: {
  invitation: Invitation;
  outside: string | null;
  onClose: () => void;
}) {
  const address = `${originForOthers(outside) ?? window.location.origin}/join#code=${invitation.code}`;
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Invitation for ${invitation.name}`}
      description={`Hold the camera of the device to the code, or send the address. Good once, within ${invitation.hours} hours; it is not shown again.`}
    >
      <div className="grid gap-4">
        <QrCode text={address} label={`Code with the invitation for ${invitation.name}`} />
        <p className="fig text-sm break-all" data-testid="invitation">
          {address}
        </p>
      </div>
    </Dialog>
  );
}

function Invite({ onInvited }: { onInvited: (invitation: Invitation) => void }) {
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role>("welder");
  const [wrong, setWrong] = useState<string | null>(null);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const answer = await send<Omit<Invitation, "name">>("POST", "/api/people", { name, role });
    if (!answer.ok) return setWrong(answer.at("name") ?? answer.message);
    setWrong(null);
    setName("");
    onInvited({ name: name.trim(), ...answer.value });
  };
  return (
    <Section title="Let somebody in">
      <form className="grid max-w-md gap-4" onSubmit={(e) => void submit(e)} noValidate>
        <TextField
          label="Name"
          hint="(it stands beside every reading)"
          value={name}
          wrong={wrong}
          maxLength={48}
          autoComplete="off"
          onChange={setName}
        />
        <SelectField label="May" value={role} options={ROLES} onChange={setRole} />
        <Button type="submit" look="advise" className="justify-self-start">
          Make an invitation
        </Button>
      </form>
    </Section>
  );
}

/** Who may come into the shop, from which devices, and who let whom in. */
export function People({ start }: { start: Shop }) {
  const router = useRouter();
  const [said, setSaid] = useState<string | null>(null);
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  const change = async (person: Shop["people"][number], body: object, words: string) => {
    const answer = await send<Omit<Invitation, "name"> | null>("PUT", `/api/people/${person.id}`, body);
    setSaid(answer.ok ? words : answer.message);
    if (answer.ok && answer.value) setInvitation({ name: person.name, ...answer.value });
    router.refresh();
  };
  const withdraw = async (id: string) => {
    const answer = await send<null>("DELETE", `/api/devices/${id}`);
    setSaid(answer.ok ? "Withdrawn: that device has to be let in again." : answer.message);
    router.refresh();
  };
  const names = new Map(start.people.map((p) => [p.id, p.name]));
  return (
    <SidePage title="People">
      <Now
        say={said ?? `${start.people.filter((p) => p.leftAt === null).length} people may come into ${start.shop}.`}
        why="Who leaves is signed out at once on every device; what they entered stays under their name."
      />
      <Section title="People">
        <ul>
          {start.people.map((p) => (
            <li key={p.id} className="grid gap-2 border-t border-line py-3 sm:grid-cols-[minmax(0,1fr)_16rem_auto]">
              <p>
                <strong>{p.name}</strong>
                {p.id === start.you ? " (you)" : ""}
                <span className="block text-sm text-soft">
                  {p.leftAt ? (
                    <>
                      left <When at={p.leftAt} />
                    </>
                  ) : p.hasPassword ? (
                    "has a password"
                  ) : (
                    "comes in by invited devices only"
                  )}
                </span>
              </p>
              {p.leftAt ? (
                <span />
              ) : (
                <SelectField
                  label={<span className="sr-only">What {p.name} may</span>}
                  value={p.role}
                  options={ROLES}
                  onChange={(role) => void change(p, { do: "role", role }, `${p.name} is ${role} now.`)}
                />
              )}
              <div className="flex flex-wrap gap-2">
                {p.leftAt ? (
                  <Button
                    aria-label={`Let ${p.name} come back`}
                    onClick={() => void change(p, { do: "come back" }, `${p.name} may come in again: invite a device.`)}
                  >
                    Let come back
                  </Button>
                ) : (
                  <>
                    <Button
                      aria-label={`Invite a device of ${p.name}`}
                      onClick={() => void change(p, { do: "invite" }, `Invitation for ${p.name}.`)}
                    >
                      Invite a device
                    </Button>
                    <Button
                      aria-label={`Send ${p.name} away`}
                      onClick={() => void change(p, { do: "leave" }, `${p.name} is signed out everywhere.`)}
                    >
                      Send away
                    </Button>
                  </>
                )}
              </div>
            </li>
          ))}
        </ul>
      </Section>
      <Section title="Devices signed in">
        <ul>
          {start.devices.map((d) => (
            <li key={d.id} className="flex flex-wrap items-center justify-between gap-3 border-t border-line py-2">
              <span>
                {names.get(d.personId)}, {d.name}
                {d.id === start.device ? " (this one)" : ""}
                <span className="block text-sm text-soft">
                  last seen <When at={d.seenAt} />
                </span>
              </span>
              <Button aria-label={`Withdraw ${d.name} of ${names.get(d.personId)}`} onClick={() => void withdraw(d.id)}>
                Withdraw
              </Button>
            </li>
          ))}
        </ul>
      </Section>
      <Invite
        onInvited={(made) => {
          setInvitation(made);
          setSaid(`Invitation for ${made.name}.`);
          router.refresh();
        }}
      />
      <ChangePassword />
      <Section title="What happened at the door">
        <ul className="text-sm">
          {start.audit.map((line) => (
            <li key={`${line.at} ${line.what} ${line.about}`} className="flex gap-3 border-t border-line py-1">
              <When at={line.at} />
              <span>
                {line.by}: {line.what} {line.about}
              </span>
            </li>
          ))}
        </ul>
      </Section>
      {invitation ? (
        <Invited invitation={invitation} outside={start.address} onClose={() => setInvitation(null)} />
      ) : null}
    </SidePage>
  );
}
