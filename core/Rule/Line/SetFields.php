<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Condition\ConditionSlot;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\RefusedValue;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\ReadsChildren;
use VividLedger\Rule\Target\Target;
use VividLedger\Rule\Target\Targets;
use VividLedger\Rule\Target\TargetSlot;
use VividLedger\Rule\Target\ThisRecord;
use VividLedger\Rule\Value\DeedSlot;
use VividLedger\Rule\Value\Known;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Elsewhere;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\Slot\Many;

/** Sets one or several fields of the record, of one it refers to, of its children, or of one that was just made. */
final readonly class SetFields implements Line, ReadsChildren, Writes
{
    private function __construct(private Target $target, private Assignments $assignments)
    {
    }

    public static function kind(): string
    {
        return 'set_fields';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['set' => [[]]])->says('Set [on {on}: ]{set}[, of those where {where}]')->orSaid(
            '(set|make|put|change|switch|turn|update|mark|move|bring|reset|let) {set}[ be]', '(set|change|update|put|make) {on}’s {set}',
            '{deeds}', '{becomes}', '(set|change|put|make|mark|move|turn|update|switch) {elsewhere}', '{elsewhere}',
            'on {on}[:|,] [set |make |put ]{set}',
            '(set|change|update) {set} (on|of|for|in) {on}',
        )->slot('on', new TargetSlot)->slot('set', new AssignmentsSlot(TargetSlot::typeOf(...)))
            ->slot('where', new Elsewhere(new ConditionSlot, TargetSlot::typeOf(...)))
            ->slot(
                'becomes',
                new Keyed('set', new AssignmentsSlot(TargetSlot::typeOf(...), isBare: true)),
            )->slot('elsewhere', new SetElsewhere)
            ->slot('deeds', new Keyed('set', new Many(new DeedSlot, 'and')));
    }

    public static function label(): string
    {
        return 'Set fields';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->apart('where')->read($context, $node);
        if ($read === null) {
            return null;
        }
        $on = $node->child('on')->text() ?? '';
        $target = Targets::where($context, $node->child('where'), $read->any('on', Target::class) ?? new ThisRecord($context->type), $on);

        return $target === null ? null : new self($target, $read->the('set', Assignments::class));
    }

    public function writes(RecordType $own): array
    {
        return array_map(fn (Assignment $assignment): Written => new Written(
            $this->target->type()->name,
            $assignment->field->name,
            $assignment->value instanceof Known,
            $assignment->value instanceof Known ? $assignment->value->known() : null,
            $this->target->isOwn(),
        ), $this->assignments->all);
    }

    public function childrenRead(): array
    {
        return $this->target->childrenRead();
    }

    public function makes(): null
    {
        return null;
    }

    public function perform(ActionContext $performance): void
    {
        $records = $this->target->records($performance);
        if ($records === [] && $this->target->whyNone() !== null) {
            $performance->failed(implode(', ', $this->assignments->labels()), $this->target->whyNone());
        }
        foreach ($records as $record) {
            foreach ($this->assignments->all as $assignment) {
                $current = $performance->toChange($record) ?? $record;
                try {
                    $performance->set($assignment->field, $assignment->value->for($assignment->field, $performance, $current), $current);
                } catch (InvalidValue $invalid) {
                    $performance->failed($assignment->field->label, $invalid->getMessage());
                } catch (RefusedValue $refused) {
                    $performance->refuse($this->target->isOwn() ? $assignment->field : null, $refused->getMessage());

                    return;
                }
            }
        }
    }
}
