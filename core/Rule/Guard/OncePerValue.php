<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use Closure;
use VividLedger\Condition\ConditionSlot;
use VividLedger\Facts\GuardState;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Shape\Slot\OwnField;

/** Once for each value of a field: each renewal date, each stage. Empty is a value like any other. */
final readonly class OncePerValue implements RepeatGuard
{
    use UsedUp;

    private function __construct(private Field $field, private string $wording)
    {
    }

    public static function kind(): string
    {
        return 'once_per_value';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(RepeatGuards::chooser(...))->apart('again')
            ->says('once per {} for each value of {field}[, ready again when {again}]')->orSaid(
                '[only ]once (for|per) (each|every|a|) value of {field}[, ready again when {again}]',
                '[only ]once (for each|for every|per) {field}[, ready again when {again}]',
                'once (per|for each) {} (for each|per|and) [value of ]{field}[, ready again when {again}]',
                'once (per|for each) {field} (per|for each|of each) {}',
            )->slot('', new ItsType)->slot('field', new OwnField(
                self::fits(...),
                new Gap('choose a field', 'Choose the field whose values count.'),
            ))->slot('again', new ConditionSlot);
    }

    public static function label(RecordType $type): string
    {
        return "once per {$type->inSentence()} for each value of";
    }

    public static function read(Context $context, Node $node): ?self
    {
        $field = self::shape()->read($context, $node)?->the('field', Field::class);

        return $field === null ? null : new self($field, self::label($context->type)." {$field->label}");
    }

    public function wording(): string
    {
        return $this->wording;
    }

    public function holdsBack(GuardState $state, Record $record, \DateTimeImmutable $now, Closure $isUsed): bool
    {
        return $state->count > 0 && $isUsed($this->key($record, '', $state));
    }

    public function key(Record $record, string $occasion, GuardState $state): string
    {
        $value = (string) json_encode($record->value($this->field->name));

        // Texts can be longer than a key, and hold what a key cannot.
        return "value:{$this->field->name}:".(preg_match('/^[\x20-\x7E]{1,40}$/', $value) === 1 ? $value : sha1($value));
    }

    private static function fits(Field $field): bool
    {
        return ! $field->system && $field->type !== FieldType::LongText && $field->type !== FieldType::Tick;
    }

    public function isForGood(): bool
    {
        return false;
    }
}
