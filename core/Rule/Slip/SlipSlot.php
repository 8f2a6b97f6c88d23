<?php

declare(strict_types=1);

namespace VividLedger\Rule\Slip;

use VividLedger\Rule\Letter\Letter;
use VividLedger\Rule\Letter\WrittenOrKept;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Slip\Questions;
use VividLedger\Slip\QuestionsSlot;
use VividLedger\Words\Words;

/** A slip as the page shows it: a kept one by its name, {"slip"}, or one of its own, {"subject", "body", "asks"}. */
final readonly class SlipSlot implements MultiKeySlot, Worded
{
    use InKeys;

    /** The key under which a line names a slip that is kept in Setup. */
    public const KEY = 'slip';

    public function keys(): array
    {
        return [self::KEY, 'letter', 'subject', 'body', 'asks'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Quoted)->print(is_array($json) ? $json[self::KEY] ?? $json['subject'] ?? null : null, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return [];
    }

    public function read(Context $context, Node $node, Filled $around): ?SlipForm
    {
        return $node->child(self::KEY)->isMissing() ? $this->written($context, $node, $around) : $this->kept($context, $node);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function properties(): array
    {
        return [];
    }

    public function required(): array
    {
        return [];
    }

    private function kept(Context $context, Node $node): ?SlipForm
    {
        $name = $node->child(self::KEY)->text() ?? '';
        $kept = $context->directory->slip($context->type->name, $name);
        $editor = self::editor($context, $node);
        if ($kept === null) {
            $message = Words::say(
                'There is no slip ‘{name}’ for {type}. Slips are kept in Setup.',
                name: $name,
                type: $context->type->plural,
            );

            $at = $node->child(self::KEY)->at;

            return $context->gap($name === '' ? 'choose a slip' : "‘{$name}’", $at, $editor, 'unknown_slip', $message);
        }
        $context->glue('the reply slip');
        $context->word("‘{$name}’", WordRole::Value, $node->child(self::KEY)->at, $editor);
        $form = self::form($context, $kept, $name);

        return $form ?? $context->problem($node->at, 'broken_slip', Words::say('This slip has to be mended in Setup first.'));
    }

    /**
     * A slip as it is kept, read for itself; null when it is not sound.
     *
     * @param  array<array-key, mixed>  $kept  subject, body and questions
     */
    public static function form(Context $context, array $kept, string $name): ?SlipForm
    {
        $inner = new Context($context->schema, $context->directory, $context->type, $context->zone);
        $letter = Letter::read($inner, new Node($kept['subject'] ?? null, '/subject'), new Node($kept['body'] ?? null, '/body'), true);
        $asks = array_values((array) ($kept['asks'] ?? []));
        $questions = QuestionsSlot::written($context, new Node($asks, '/asks'));

        return $letter === null || $questions === null ? null : new SlipForm($letter, $questions, $asks, $name);
    }

    private function written(Context $context, Node $node, Filled $around): ?SlipForm
    {
        $context->glue('a reply slip');
        if ($context->directory->slips($context->type->name) !== []) {
            $context->more('+ a kept one', $node->child(self::KEY)->at, self::editor($context, $node));
        }
        $letter = (new WrittenOrKept)->read($context, $node, $around);
        $context->glue('asking');
        $problems = $context->problems();
        $asks = $node->child('asks');
        $questions = (new QuestionsSlot)->read($context, $asks, $around);

        return $letter === null || $context->problems() > $problems ? null
            : new SlipForm($letter, $questions, is_array($asks->raw) ? array_values($asks->raw) : [], '');
    }

    private static function editor(Context $context, Node $node): Editor
    {
        return Editor::choose('Reply slips', static fn (): array => [
            new Offer('write it here', null, also: ["{$node->at}/asks" => [Questions::BEGUN]]),
            ...array_map(
                static fn (string $name): Offer => new Offer($name, $name, 'Kept in Setup', also: array_fill_keys(
                    ["{$node->at}/letter", "{$node->at}/subject", "{$node->at}/body", "{$node->at}/asks"],
                    null,
                )),
                $context->directory->slips($context->type->name),
            ),
        ]);
    }
}
