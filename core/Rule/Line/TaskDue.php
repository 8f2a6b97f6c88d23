<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\House\Person;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\FormField;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\Way;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Due;
use VividLedger\Time\LocalTime;
use VividLedger\Time\Unit;
use VividLedger\Words\Words;

/** When a task falls due: so long after now, or so long before or after a date of this or a related record. */
final readonly class TaskDue
{
    private function __construct(private Due $due, private ?Path $from)
    {
    }

    /** @return self|false|null null for no set time, false when it cannot be read */
    public static function read(Context $context, Node $node): self|false|null
    {
        $form = self::form($context);
        if ($node->raw === null) {
            $context->word('at no set time', WordRole::Value, $node->at, $form);

            return null;
        }
        $due = TimeReader::due($node);
        $name = $node->child('from')->text();
        $from = $name === null ? null : $context->schema->path($context->type, $name);
        if ($name !== null && ($from === null || ! $from->field->type->isMoment())) {
            $context->gap($name, $node->at, $form, 'unknown_field', Words::say(
                '{type} has no date ‘{name}’ to count from.',
                type: $context->type->label,
                name: $name,
            ));

            return false;
        }
        if (is_string($due) || ($from === null && $due->amount->amount < 0)) {
            $far = is_int($node->child('amount')->raw) && Unit::tryFrom(
                $node->child('unit')->text() ?? '',
            ) !== null && $node->child('amount')->raw >= 0;
            $context->gap(
                'choose when',
                $node->at,
                $form,
                $far ? 'out_of_range' : 'wrong_type',
                is_string($due) ? $due : Words::say('Give a whole number and a unit, such as 2 days.'),
            );

            return false;
        }
        $said = match (true) {
            $from === null => $due->amount->amount === 0 ? ($due->time === null ? 'at once' : 'the same day') : "{$due->length()} later",
            $due->amount->amount === 0 => "on {$from->label()}",
            default => $due->length().($due->amount->amount < 0 ? ' before ' : ' after ').$from->label(),
        };
        $context->word(trim("{$said} {$due->rest()}"), WordRole::Value, $node->at, $form);

        return new self($due, $from);
    }

    /** So long after now, or before and after a date. */
    private static function form(Context $context): Editor
    {
        return Editor::form('When it is due', static fn (): array => [new Way('', [], [
            FormField::time(
                ['amount' => 1, 'unit' => 'day'], sides: ['after', 'before'], sidesWith: 'from', hasTime: true,
            ),
            FormField::choice('from', 'counted from', [
                new Offer('now', null), ...FieldOffers::names($context, static fn (Field $field): bool => $field->type->isMoment()),
            ]),
        ])], none: 'No due date');
    }

    /**
     * @param  ?Person  $assignee  by whose working calendar the time is counted
     * @return ?\DateTimeImmutable null when the date to count from is empty
     */
    public function at(ActionContext $performance, ?Person $assignee): ?\DateTimeImmutable
    {
        $base = $performance->now;
        if ($this->from !== null) {
            $value = $performance->view()->value($this->from);
            if (! is_string($value)) {
                return null;
            }
            $base = LocalTime::of($value, $performance->zone);
        }
        $calendar = $this->due->needsCalendar() || $this->due->time !== null ? $performance->facts->calendar($assignee) : null;

        return $this->due->from($base, $calendar->zone ?? $performance->zone, $calendar);
    }

    /** Name of the record's own date it counts from; null for another base. */
    public function hangsOn(): ?string
    {
        return $this->from !== null && $this->from->hops === [] ? $this->from->field->name : null;
    }

    public function emptyBase(): string
    {
        return $this->from?->label() ?? '';
    }
}
