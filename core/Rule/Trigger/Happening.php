<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** What happens to a related record. */
final readonly class Happening extends WordedAs
{
    public const SAID = [
        'created' => 'is created', 'changed' => 'is changed', 'created_or_changed' => 'is created or changed', 'deleted' => 'is deleted',
    ];

    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $editor = Editor::choose('What happens', static fn (): array => array_map(
            static fn (string $kind, string $label): Offer => new Offer($label, $kind),
            array_keys(self::SAID),
            self::SAID,
        ));
        $said = self::SAID[$node->text() ?? ''] ?? null;
        if ($said === null) {
            return $context->gap('choose what', $node->at, $editor, 'missing', Words::say('Choose what has to happen to it.'));
        }
        $context->word($said, WordRole::Value, $node->at, $editor);

        return $node->text();
    }

    public function schema(): array
    {
        return ['enum' => array_keys(self::SAID)];
    }

    protected function slot(): Labels
    {
        return Labels::of(array_flip(self::SAID));
    }
}
