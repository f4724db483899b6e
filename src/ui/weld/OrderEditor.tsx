"use client";

import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { ArrowDown, ArrowUp, GripVertical, X } from "lucide-react";
import { useState } from "react";
import { additionsTo, ownChoice, type Step, type StepId, stepKey, withAdded, withMoved } from "@/core/plan";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { SelectField } from "../parts/SelectField";
import { useStepWords } from "./useStepWords";

const iconClass =
  "tap inline-grid w-11 shrink-0 place-items-center rounded-[3px] border border-edge disabled:opacity-40";

function Row({
  step,
  place,
  last,
  say,
  onMove,
  onRemove,
}: {
  step: Step;
  place: number;
  last: boolean;
  say: string;
  onMove: (to: number) => void;
  onRemove: () => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: step.key });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined, transition }}
      className={`flex items-center gap-1 border-t border-line py-1 first:border-t-0 ${isDragging ? "relative z-10 bg-plum-soft" : "bg-sheet"}`}
    >
      <button
        type="button"
        className={`${iconClass} cursor-grab touch-none`}
        {...attributes}
        {...listeners}
        aria-label={`Drag step ${place + 1}, ${say}`}
      >
        <GripVertical size={18} aria-hidden="true" />
      </button>
      <span className="min-w-0 grow px-1 leading-tight">
        <span className="fig mr-2 text-sm text-soft">{place + 1}</span>
        {say}
      </span>
      <button
        type="button"
        className={iconClass}
        disabled={place === 0}
        onClick={() => onMove(place - 1)}
        aria-label={`Earlier: ${say}`}
      >
        <ArrowUp size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        className={iconClass}
        disabled={last}
        onClick={() => onMove(place + 1)}
        aria-label={`Later: ${say}`}
      >
        <ArrowDown size={18} aria-hidden="true" />
      </button>
      <button type="button" className={iconClass} onClick={onRemove} aria-label={`Leave out: ${say}`}>
        <X size={18} aria-hidden="true" />
      </button>
    </li>
  );
}

/** The order, step by step, to be moved by hand or by key; the forecast beside it follows. */
export function OrderEditor() {
  const { evaluation } = useJob("evaluation");
  const { plan, edit } = usePlanField();
  const wordsOf = useStepWords();
  const [adding, setAdding] = useState<string>("");
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { structure, order, steps } = evaluation;
  if (!structure || !order || !plan.order || plan.order.by === "schools") return null;
  const lay = (next: readonly StepId[]) => edit((p) => ({ ...p, order: ownChoice(order, next) }));
  // What the frame no longer has is not shown, and goes when the order is changed.
  const ids = steps.map((s) => s.id);
  const at = (id: unknown): number => steps.findIndex((s) => s.key === id);
  const say = (id: unknown): string => {
    const step = steps[at(id)];
    return step ? wordsOf(step).say : "";
  };
  const additions = additionsTo(structure, ids);
  const options = additions.map((a) => [stepKey(a.id), a.say] as const);
  const [first] = additions;
  const chosen = additions.find((a) => stepKey(a.id) === adding) ?? first;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3" data-testid="order-editor">
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        accessibility={{
          announcements: {
            onDragStart: ({ active }) => `Taken up: ${say(active.id)}. Up and down move it, space puts it down.`,
            onDragOver: ({ active, over }) =>
              over && over.id !== active.id ? `Now at place ${at(over.id) + 1}.` : undefined,
            onDragEnd: ({ over }) => (over ? `Put down at place ${at(over.id) + 1}.` : "Put back."),
            onDragCancel: () => "Put back.",
          },
          screenReaderInstructions: { draggable: "Space takes the step up; up and down move it; escape puts it back." },
        }}
        onDragEnd={({ active, over }) => {
          if (over && active.id !== over.id) lay(withMoved(ids, at(active.id), at(over.id)));
        }}
      >
        <SortableContext items={steps.map((s) => s.key)} strategy={verticalListSortingStrategy}>
          <ol className="max-h-[34rem] overflow-y-auto border-y border-line" aria-label="Order of work, to be changed">
            {steps.map((s, i) => (
              <Row
                key={s.key}
                step={s}
                place={i}
                last={i === steps.length - 1}
                say={wordsOf(s).say}
                onMove={(to) => lay(withMoved(ids, i, to))}
                onRemove={() => lay(ids.filter((_, k) => k !== i))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      {chosen ? (
        <div className="flex flex-wrap items-end gap-2">
          <SelectField
            label="Put in after the last bead"
            value={stepKey(chosen.id)}
            options={options}
            onChange={setAdding}
            className="min-w-0 grow"
          />
          <Button onClick={() => lay(withAdded(ids, chosen.id, null))}>Put in</Button>
        </div>
      ) : null}
    </div>
  );
}
