<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Engine\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Due;

/** Nothing of a sort has happened for so long: no change, no activity at all, no reply, or a field has kept a value. */
final readonly class FallsQuiet extends Swept
{
    /** Kinds of entry that break the silence. What a rule does to a record is no news of it. */
    public const BREAKS = [
        'change' => ['created', 'changed', 'restored'],
        'activity' => ['created', 'changed', 'restored', 'comment', 'file', 'task_done', 'reply', 'by_hand'],
    ];

    private const SORTS = [
        'change' => 'has not been changed', 'activity' => 'has seen no activity', 'reply' => 'has had no reply', 'value' => 'has kept',
    ];

    private function __construct(
        string $type,
        public string $sort,
        public Due $due,
        public ?Field $field,
        public string|int|bool|null $value,
    ) {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return 'quiet';
    }

    public static function label(): string
    {
        return 'is quiet for a while';
    }

    public static function event(): EventKind
    {
        return EventKind::FellQuiet;
    }

    public static function read(Context $context, Node $node): ?self
    {
        $of = $node->child('of');
        $sort = $of->text() ?? '';
        $offers = static fn (): array => array_map(
            static fn (string $kind, string $said): Offer => new Offer($kind === 'value' ? 'has kept a value' : $said, $kind),
            array_keys(self::SORTS),
            self::SORTS,
        );
        $context->word('once it', WordRole::Glue, $node->at, Edit::Trigger);
        if (! isset(self::SORTS[$sort])) {
            return $context->gap('choose what stays away', $of->at, Edit::Offer, 'missing', 'Choose what has not happened.', $offers);
        }
        $context->choice(self::SORTS[$sort], WordRole::Value, $of->at, $offers);
        $field = null;
        $value = null;
        if ($sort === 'value') {
            $at = $node->child('field');
            $field = $context->type->field($at->text() ?? '');
            $fields = static fn (): array => array_map(
                static fn (Field $field): Offer => new Offer($field->label, $field->name),
                array_values(array_filter(
                    $context->type->ownFields(),
                    static fn (Field $field): bool => $field->type === FieldType::Choice || $field->type === FieldType::Tick,
                )),
            );
            if ($field === null || ($field->type !== FieldType::Choice && $field->type !== FieldType::Tick)) {
                return $context->gap(
                    $at->text() ?? 'choose a field',
                    $at->at,
                    Edit::Offer,
                    'unknown_field',
                    'Choose the field that has kept its value.',
                    $fields,
                );
            }
            $context->choice($field->label, WordRole::Field, $at->at, $fields);
            $context->glue('at');
            $value = FieldReader::value($context, $field, $node->child('value'), Edit::KeptValue);
            if ($value === null) {
                return null;
            }
        }
        $context->glue('for');
        $due = Due::read($node);
        if (is_string($due) || $due->amount->amount < 1) {
            return $context->gap(
                'choose how long',
                $node->at,
                Edit::Moment,
                'wrong_type',
                is_string($due) ? $due : 'Give an amount of 1 or more.',
            );
        }
        $context->word(trim("{$due->length()} {$due->rest()}"), WordRole::Value, $node->at, Edit::Moment);

        return new self($context->type->name, $sort, $due, $field, $value);
    }

    public function wanted(): string
    {
        return self::SORTS[$this->sort].($this->field === null ? '' : " {$this->field->label}")." for {$this->due->length()}";
    }

    /** Run by hand, it is about the silence that is there already; so that silence sets it off no more. */
    public function occasionOf(Change $change, Facts $facts): ?string
    {
        if ($change->event?->kind !== EventKind::ByHand || $change->after === null) {
            return parent::occasionOf($change, $facts);
        }
        $mark = $facts->silenceMark($this, $change->after->type, $change->after->id);

        return $mark === null ? null : $this->occasion($mark);
    }

    /** @param  int  $entry  number of the last entry before it fell quiet */
    public function occasion(int $entry): string
    {
        return "quiet:{$this->sort}:{$entry}";
    }
}
