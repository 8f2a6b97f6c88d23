<?php

declare(strict_types=1);

namespace VividLedger\Rule\Letter;

use VividLedger\Message\Channel;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\InKeys;
use VividLedger\Shape\MultiKeySlot;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Template\RichText;
use VividLedger\Words\Words;

/** What a message says, as the page shows it in short: a kept letter by its name, {"letter"}, or its own words, {"subject", "body"}. */
final readonly class WrittenOrKept implements MultiKeySlot, Worded
{
    use InKeys;

    public function keys(): array
    {
        return ['letter', 'subject', 'body'];
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Quoted)->print(is_array($json) ? $json['letter'] ?? $json['subject'] ?? null : null, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return [];
    }

    public function read(Context $context, Node $node, Filled $around): ?Letter
    {
        $channel = $around->any('channel', Channel::class);
        $editor = Editor::letter($channel === Channel::Sms);
        $name = $node->child('letter')->text();
        if ($name !== null) {
            $kept = in_array($name, $context->directory->letters($context->type->name), true) ? $context->directory->letter($name) : null;
            if ($kept === null) {
                return $context->gap(
                    "‘{$name}’",
                    $node->at,
                    $editor,
                    'unknown_letter',
                    Words::say(
                        'There is no letter ‘{name}’ for {records}. Choose another, or write the message here.',
                        name: $name,
                        records: $context->type->plural,
                    ),
                );
            }
            $context->glue('with the letter');
            $context->word("‘{$name}’", WordRole::Value, $node->at, $editor);

            return Letter::read(
                $context,
                new Node($kept['subject'] ?? '', $node->at),
                new Node($kept['body'] ?? '', $node->at),
                $channel !== Channel::Sms,
            );
        }
        $subject = trim($node->child('subject')->text() ?? '');
        $said = $channel === Channel::Sms || $subject === '' ? RichText::plain(RichText::clean(
            $node->child('body')->text() ?? '',
        )) : $subject;
        if ($said === '') {
            $context->word('write the message', WordRole::Missing, $node->at, $editor);
            $problems = $context->problems();
            Letter::read($context, $node->child('subject'), $node->child('body'), $channel !== Channel::Sms);

            return $context->problems() > $problems ? null : $context->problem($node->at, 'missing', Words::say('Write the message.'));
        }
        $context->word(
            '“'.mb_strimwidth((string) preg_replace('/\s+/u', ' ', $said), 0, 80, '…').'”',
            WordRole::Value,
            $node->at,
            $editor,
        );

        return Letter::read($context, $node->child('subject'), $node->child('body'), $channel !== Channel::Sms);
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
}
