<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\Change;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;

/** Which fields a change has to touch: any, or one of several; and of a single field the value it came from and the one it came to. */
final readonly class ChangedFields
{
    /**
     * @param  ?list<string>  $names  null for any field
     * @param  string  $wording  " in Status from Open to Closed"; empty for any field
     */
    private function __construct(
        public ?array $names,
        public ?Field $single,
        public string|int|bool|null $from,
        public string|int|bool|null $to,
        private string $wording,
    ) {
    }

    /** Reads "fields", "from" and "to"; null when unfinished. */
    public static function read(Context $context, Node $node, RecordType $type): ?self
    {
        $context = $context->about($type);
        $context->glue('in');
        $list = $node->child('fields');
        $chooser = Editor::chooseSeveral('Changed in', static fn (): array => array_map(
            static fn (Field $field): Offer => new Offer($field->label, $field->name),
            $type->ownFields(),
        ), ['from', 'to']);
        $fields = [];
        $sound = true;
        foreach ($list->items() as $index => $item) {
            if ($index > 0) {
                $context->glue('or');
            }
            $field = $type->field($item->text() ?? '');
            if ($field === null || $field->system) {
                $shown = $item->text() ?? '?';
                $context->gap(
                    $shown,
                    $list->at,
                    $chooser,
                    'unknown_field',
                    "{$type->label} has no field ‘{$shown}’ that can change. Choose another.",
                );
                $sound = false;
            } else {
                $context->word($field->label, WordRole::Field, $list->at, $chooser);
                $fields[] = $field;
            }
        }
        if ($list->items() === []) {
            $context->word('any field', WordRole::Value, $list->at, $chooser);
        }
        $single = count($fields) === 1 ? $fields[0] : null;
        [$from, $to] = [
            self::value($context, $node->child('from'), $single, 'from'), self::value($context, $node->child('to'), $single, 'to'),
        ];
        if (! $sound || $from === false || $to === false) {
            return null;
        }
        $wording = $fields === [] ? '' : ' in '.implode(' or ', array_map(static fn (Field $field): string => $field->label, $fields));
        foreach (['from' => $from, 'to' => $to] as $side => $value) {
            $wording .= $value === null || $single === null ? '' : " {$side} ".$context->display->of($single, $value[0]);
        }

        return new self(
            $fields === [] ? null : array_map(static fn (Field $field): string => $field->name, $fields),
            $single,
            $from[0] ?? null,
            $to[0] ?? null,
            $wording,
        );
    }

    public function asksValues(): bool
    {
        return $this->from !== null || $this->to !== null;
    }

    public function changedIn(Change $change): bool
    {
        if ($this->names !== null && array_intersect($this->names, $change->fields()) === []) {
            return false;
        }
        if ($this->single === null) {
            return $change->fields() !== [];
        }

        return ($this->from === null || $change->before?->value($this->single->name) === $this->from)
            && ($this->to === null || $change->after?->value($this->single->name) === $this->to);
    }

    public function wording(): string
    {
        return $this->wording;
    }

    /** @return array{string|int|bool}|false|null the value; null for any value, false when it cannot be read */
    private static function value(Context $context, Node $node, ?Field $single, string $side): array|false|null
    {
        if ($node->raw === null) {
            if ($single !== null) {
                $context->more("+ {$side}", $node->at, Editor::value($context->type->name, $single, mayBeEmpty: true));
            }

            return null;
        }
        if ($single === null) {
            $context->problem($node->at, 'wrong_type', "‘{$side}’ goes with exactly one field.");

            return false;
        }
        $context->glue($side);
        $value = FieldReader::value($context, $single, $node, Editor::value($context->type->name, $single, mayBeEmpty: true));

        return $value === null ? false : [$value];
    }
}
