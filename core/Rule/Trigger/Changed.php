<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\Change;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\WordRole;

/** An existing record changed: in any field, or in one of the named fields. */
final readonly class Changed implements Trigger
{
    /** @param  ?list<string>  $fields null for any field */
    public function __construct(public ?array $fields = null)
    {
    }

    public static function kind(): string
    {
        return 'changed';
    }

    public static function label(): string
    {
        return 'is changed';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->word(self::label(), WordRole::Value, $node->at, Edit::Trigger);
        $context->glue('in');
        $list = $node->child('fields');
        $names = [];
        $sound = true;
        foreach ($list->items() as $index => $item) {
            if ($index > 0) {
                $context->glue('or');
            }
            $field = $context->type->field($item->text() ?? '');
            if ($field === null || $field->system) {
                $shown = $item->text() ?? '?';
                $context->gap($shown, $list->at, Edit::WatchedFields, 'unknown_field', "{$context->type->label} has no field ‘{$shown}’ that can change. Choose another.");
                $sound = false;
            } else {
                $context->word($field->label, WordRole::Field, $list->at, Edit::WatchedFields);
                $names[] = $field->name;
            }
        }
        if ($list->items() === []) {
            $context->word('any field', WordRole::Value, $list->at, Edit::WatchedFields);
        }

        return $sound ? new self($names === [] ? null : $names) : null;
    }

    public function accepts(Change $change): bool
    {
        if ($change->before === null || $change->after === null) {
            return false;
        }

        return $this->fields === null || array_intersect($this->fields, $change->fields()) !== [];
    }

    public function onCreation(): bool
    {
        return false;
    }

    public function onChangeOf(): ?array
    {
        return $this->fields;
    }
}
