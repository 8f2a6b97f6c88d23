<?php

declare(strict_types=1);

namespace VividLedger\Rule\Ladder;

use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Rule\Line\Remind;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\Finder;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\InObject;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\Wait;
use VividLedger\Time\Due;

/** One step of a ladder: how long to wait, who is found, and what is done with them. */
final readonly class Rung
{
    /**
     * @param  int  $number  from 1
     * @param  Due  $wait  after the rung before, or after the line's own time
     * @param  non-empty-list<RungAct>  $acts
     */
    public function __construct(
        public int $number,
        public Due $wait,
        public Who $person,
        public array $acts,
    ) {
    }

    /** "after 1 working day find the owner’s manager: tell them and raise the priority" */
    public static function shape(): Shape
    {
        return Shape::of()->says('[after {after} ]find {to}: {do}')->slot('after', new InObject(new Wait))->slot('to', new PersonSlot)
            ->slot('do', new Many(Labels::of([
                'tell them' => RungAct::Tell->value, 'make them the owner' => RungAct::Reassign->value,
                'raise the priority' => RungAct::Raise->value,
            ]), 'and'));
    }

    public function climb(ActionContext $performance, int $of): void
    {
        $found = Finder::find($this->person, $performance);
        foreach ($this->acts as $act) {
            match ($act) {
                RungAct::Tell => Remind::tell(
                    $performance,
                    $found,
                    mb_substr("Rung {$this->number} of {$of}: {$performance->called($performance->record)}", 0, Remind::LENGTH),
                ),
                RungAct::Reassign => $this->reassign($performance, $found->person?->id),
                RungAct::Raise => $this->raise($performance),
            };
        }
    }

    private function reassign(ActionContext $performance, ?int $person): void
    {
        $owner = $performance->type->field($performance->type->owner);
        if ($owner === null || $person === null) {
            $performance->failed('The owner', $owner === null ? "{$performance->type->one()} has none" : 'nobody was found');

            return;
        }
        $performance->set($owner, $person, $performance->toChange($performance->record));
    }

    /** One step up the choices of the priority, in the order the record type lists them. */
    private function raise(ActionContext $performance): void
    {
        $field = $performance->type->field('priority');
        if ($field === null || $field->type !== FieldType::Choice) {
            $performance->failed('The priority', "{$performance->type->one()} has none");

            return;
        }
        $values = array_map(static fn ($choice): string => $choice->value, $field->choices);
        $at = array_search($performance->record->value('priority'), $values, true);
        $performance->set(
            $field,
            $values[min(count($values) - 1, $at === false ? 0 : $at + 1)],
            $performance->toChange($performance->record),
        );
    }
}
