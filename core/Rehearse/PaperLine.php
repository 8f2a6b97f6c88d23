<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Explain\CallTold;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\CallMade;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** Answers the calls of a rehearsal: at once, with an answer that is made up, unless it is supposed that one fails. */
final readonly class PaperLine implements Tends
{
    public function __construct(private Play $play)
    {
    }

    public function next(): ?array
    {
        foreach ($this->play->paper->runs->calls as $one) {
            if ($one->endedAt === null) {
                return [$one->at, fn () => $this->end($one)];
            }
        }

        return null;
    }

    public function tellWithdrawn(): void
    {
    }

    private function end(PaperCall $one): void
    {
        $fails = in_array($one->number, $this->play->paper->runs->failing, true);
        $one->ended = $fails ? CallMade::FAILED : CallMade::SUCCEEDED;
        $one->endedAt = $this->play->paper->now;
        $record = $this->play->paper->record($one->made->record->type, $one->made->record->id);
        if ($record === null) {
            return;
        }
        $values = [];
        foreach ($fails ? [] : $one->made->keeps as $kept) {
            $values[$kept->field->name] = self::madeUp($kept->field, $one->number);
        }
        $told = CallTold::of($one->made->endpoint, $one->ended, isMadeUp: true);
        $entry = $this->play->note('call', $record, $one->rule, $told, $one->entry, $fails);
        if ($values !== []) {
            $this->play->save($record, $record->id, $record->type, $values, null);
        }
        $event = new Event(EventKind::CallEnded, "call:{$one->number}", $one->ended);
        $this->play->recordEvent($this->play->paper->record($record->type, $record->id) ?? $record, $event, null, false, $entry,
            $one->rule);
    }

    /** What a field could be answered with; the same each time. */
    private static function madeUp(Field $field, int $number): string|int|bool|null
    {
        $raw = match (true) {
            $field->type === FieldType::Choice => $field->choices[0]->value ?? null,
            $field->type === FieldType::Tick => true,
            $field->type === FieldType::Date => '2026-12-01',
            $field->type === FieldType::DateTime => '2026-12-01T09:00:00Z',
            $field->type->isDecimal() => (string) (1000 + $number),
            $field->type === FieldType::Email => 'answer@example.com',
            $field->type->isText() => 'X-'.(1000 + $number),
            default => null,
        };
        try {
            return Value::of($field, $raw);
        } catch (InvalidValue) {
            return null;
        }
    }
}
