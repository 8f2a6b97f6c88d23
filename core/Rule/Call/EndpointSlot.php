<?php

declare(strict_types=1);

namespace VividLedger\Rule\Call;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** An endpoint of another system that is kept in Setup, by its name in quotes. */
final readonly class EndpointSlot extends WordedAs
{
    /** The key under which a line names it. */
    public const KEY = 'endpoint';

    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $name = $node->text() ?? '';
        $endpoints = $context->directory->endpoints();
        $editor = Editor::choose('Endpoints', static fn (): array => array_map(
            static fn (string $endpoint): Offer => new Offer($endpoint, $endpoint),
            $endpoints,
        ));
        if (! in_array($name, $endpoints, true)) {
            $message = $name === ''
                ? Words::say('Choose an endpoint. They are kept in Setup.')
                : Words::say('There is no endpoint ‘{name}’ in Setup.', name: $name);

            return $context->gap($name === '' ? 'choose an endpoint' : "‘{$name}’", $node->at, $editor, 'unknown_endpoint', $message);
        }
        $context->word("‘{$name}’", WordRole::Value, $node->at, $editor);

        return $name;
    }

    protected function slot(): Quoted
    {
        return new Quoted(60);
    }
}
