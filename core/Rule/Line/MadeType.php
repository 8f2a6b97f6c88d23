<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\TypeName;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** What kind of record a line makes. Another kind begins with what has to be filled in, as far as it can be told. */
final readonly class MadeType extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?RecordType
    {
        $line = substr($node->at, 0, (int) strrpos($node->at, '/'));
        $name = $node->text();
        $editor = Editor::choose('What is made', static fn (): array => array_map(
            static fn (RecordType $type): Offer => new Offer(
                $type->label,
                ['type' => $type->name, 'as' => self::freeName($context, $type), 'set' => self::proposed($context, $type)],
                merge: true,
                at: $line,
                isChosen: $name === $type->name,
            ),
            array_values($context->schema->types),
        ));
        $type = $context->schema->type($name ?? '');
        if ($type === null) {
            return $context->gap($name ?? 'choose what', $node->at, $editor, 'unknown_type', Words::say(
                'Choose what kind of record is made.',
            ));
        }
        $context->word($type->label, WordRole::Field, $node->at, $editor);

        return $type;
    }

    private static function freeName(Context $context, RecordType $type): string
    {
        $name = $type->name;
        for ($count = 2; isset($context->sheet->made[$name]); $count++) {
            $name = "{$type->name}_{$count}";
        }

        return $name;
    }

    /** @return list<array<string, mixed>> what has to be filled in, and references that can only mean this record or what it refers to */
    private static function proposed(Context $context, RecordType $type): array
    {
        $set = [];
        foreach ($type->ownFields() as $field) {
            $own = array_values(array_filter(
                $context->type->ownFields(),
                static fn (Field $other): bool => $field->target !== null && $other->target === $field->target,
            ));
            $to = match (true) {
                $field->target === $context->type->name => ['kind' => 'this'],
                $own !== [] => ['kind' => 'copy', 'from' => $own[0]->name],
                $field->name === $type->owner => ['kind' => 'person', 'person' => ['kind' => 'owner']],
                $field->required => ['kind' => $field->name === $type->title ? 'text' : 'value'],
                default => null,
            };
            if ($to !== null) {
                $set[] = ['field' => $field->name, 'to' => $to];
            }
        }

        return $set;
    }

    protected function slot(): TypeName
    {
        return new TypeName;
    }
}
