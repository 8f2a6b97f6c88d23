<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** What a date that is set is counted from: what it is, now, or a date of this or a related record. */
final readonly class DateBase
{
    private function __construct(private ?Path $from, private bool $fromNow)
    {
    }

    /** @return ?self null when there is no such date, and the problem is noted */
    public static function read(Context $context, Node $node, Field $field): ?self
    {
        $from = $node->text() ?? 'itself';
        $fields = array_values(array_filter($context->type->fields, static fn (Field $other): bool => $other->type === $field->type));
        $now = $field->type === FieldType::Date ? 'today' : 'now';
        $offers = static fn (): array => [
            new Offer('what it is', 'itself'), new Offer($now, 'now'),
            ...array_map(static fn (Field $other): Offer => new Offer($other->label, $other->name, 'Fields'), $fields),
        ];
        $path = in_array($from, ['itself', 'now'], true) ? null : $context->schema->path($context->type, $from);
        if ($path === null && $from !== 'itself' && $from !== 'now' || $path !== null && ! $path->field->type->isMoment()) {
            return $context->gap(
                $from, $node->at, Editor::choose('Counted from', $offers), 'unknown_field', Words::say('Choose a date to count from.'),
            );
        }
        $context->choice($path?->label() ?? ($from === 'now' ? $now : 'what it is'), WordRole::Field, $node->at, $offers);

        return new self($path, $from === 'now');
    }

    /**
     * The moment itself; of a day, its noon.
     *
     * @param  Field  $field  that is set
     *
     * @throws InvalidValue when what it is counted from is empty
     */
    public function moment(Field $field, ActionContext $performance, ?Record $target): \DateTimeImmutable
    {
        if ($this->fromNow) {
            $base = Value::instantText($performance->now);
        } else {
            $base = $this->from === null ? $target?->value($field->name) : $performance->view()->value($this->from);
        }
        if (! is_string($base)) {
            throw new InvalidValue(
                'no_value',
                Words::say('{label} is empty, so there is no date to count from.', label: $this->from?->label() ?? $field->label),
            );
        }

        return strlen($base) === 10 ? new \DateTimeImmutable("{$base} 12:00", $performance->zone) : new \DateTimeImmutable($base);
    }

    /** As the field keeps it. */
    public static function value(Field $field, \DateTimeImmutable $moment, \DateTimeZone $zone): string
    {
        return $field->type === FieldType::Date ? $moment->setTimezone($zone)->format('Y-m-d') : Value::instantText($moment);
    }
}
