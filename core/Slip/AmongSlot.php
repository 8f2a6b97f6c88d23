<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\WithoutNamed;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A condition kept in Setup that those who can be asked meet, by its name. */
final readonly class AmongSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?Condition
    {
        $type = self::type($context, $around);
        $name = $node->text() ?? '';
        $editor = self::editor($context, $type);
        $file = $type === null ? null : $context->directory->namedCondition($type->name, $name);
        if ($type === null || $file === null) {
            $of = $type->plural ?? 'these records';

            return $context->gap($name === '' ? 'among which?' : "‘{$name}’", $node->at, $editor, 'unknown_named',
                Words::say('There is no named condition ‘{name}’ for {of}. They are kept in Setup.', name: $name, of: $of));
        }
        $context->word("‘{$name}’", WordRole::Value, $node->at, $editor);
        $inner = new Context($context->schema, new WithoutNamed($context->directory), $type, $context->zone);

        return ConditionReader::read($inner, new Node($file))
            ?? $context->problem(
                $node->at,
                'broken_named',
                Words::say('The named condition ‘{name}’ has to be mended first.', name: $name),
            );
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ among', $node->at, self::editor($context, self::type($context, $around)));
    }

    protected function slot(): Quoted
    {
        return new Quoted(60);
    }

    public static function type(Context $context, Filled $around): ?RecordType
    {
        $field = $around->any('field', Field::class);

        return $field?->target === null ? null : $context->schema->type($field->target);
    }

    private static function editor(Context $context, ?RecordType $type): Editor
    {
        return Editor::choose('Named conditions', static fn (): array => [
            new Offer('all of them', null),
            ...array_map(
                static fn (string $name): Offer => new Offer($name, $name),
                $type === null ? [] : $context->directory->namedConditions($type->name),
            ),
        ]);
    }
}
