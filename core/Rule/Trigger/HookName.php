<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A hook that is kept in Setup and brings records of the type, by its name in quotes. */
final readonly class HookName extends WordedAs
{
    /** The key under which a rule names it. */
    public const KEY = 'hook';

    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $name = $node->text() ?? '';
        if ($name !== '' && ! in_array($name, $context->directory->hooks($context->type->name), true)) {
            $message = Words::say('No hook ‘{name}’ in Setup brings {type}.', name: $name, type: $context->type->plural);

            return $context->gap("‘{$name}’", $node->at, self::editor($context), 'unknown_hook', $message);
        }
        $context->word("‘{$name}’", WordRole::Value, $node->at, self::editor($context));

        return $name;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ a certain hook', $node->at, self::editor($context));
    }

    protected function slot(): Quoted
    {
        return new Quoted(60);
    }

    private static function editor(Context $context): Editor
    {
        return Editor::choose('Hooks', static fn (): array => array_map(
            static fn (string $hook): Offer => new Offer($hook, $hook),
            $context->directory->hooks($context->type->name),
        ));
    }
}
