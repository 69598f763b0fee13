import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';

interface SortableListProps {
  /** Of its rows, in their order. */
  readonly ids: readonly string[];
  /** A row was put elsewhere: places from 0. */
  readonly onMove: (from: number, to: number) => void;
  readonly children: ReactNode;
}

/** Rows that are dragged to other places, by pointer or by keys. */
export function SortableList({ ids, onMove, children }: SortableListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

interface SortableRowProps {
  readonly id: string;
  /** What is moved, for those who do not see it. */
  readonly name: string;
  readonly className?: string;
  /** The row, given the handle by which it is moved. */
  readonly children: (handle: ReactNode) => ReactNode;
}

/** A row of such a list. */
export function SortableRow({ id, name, className = '', children }: SortableRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`${className} ${isDragging ? 'z-10 opacity-80' : ''}`.trim()}
    >
      {children(
        <button
          type="button"
          className="grid size-9 shrink-0 cursor-grab touch-none place-items-center rounded text-muted hover:bg-band"
          aria-label={`Move ${name}: space, then up or down`}
          {...attributes}
          {...listeners}
        >
          <GripVertical size={16} aria-hidden />
        </button>,
      )}
    </li>
  );
}
