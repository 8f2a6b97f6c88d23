<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\People\PersonExpressions;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** For whom the records of a round are put together; nobody where each is looked at by itself. */
final readonly class GatheredFor extends WordedAs
{
    /** Ways to find a person that are the same for all records of that person. */
    private const OF_RECORDS = ['owner', 'creator', 'in_field', 'manager'];

    public function read(Context $context, Node $node, Filled $around): ?Who
    {
        $editor = Editor::choose('For whom', fn (): array => self::offers($context));
        if ($node->isMissing()) {
            $context->word('one by one', WordRole::Value, $node->at, $editor);

            return null;
        }
        $person = PersonExpressions::read($context, $node);
        if ($person === null) {
            return $context->gap('choose for whom', $node->at, $editor, 'missing', Words::say('Choose whose records are put together.'));
        }
        $context->word("together, for {$person->wording()} of each", WordRole::Person, $node->at, $editor);

        return $person;
    }

    /** @return list<Offer> */
    private static function offers(Context $context): array
    {
        $people = array_values(array_filter(
            PersonExpressions::offers($context),
            static fn (Offer $offer): bool => is_array($offer->value) && in_array($offer->value['kind'] ?? '', self::OF_RECORDS, true),
        ));

        return [new Offer('one by one', null), ...array_map(
            static fn (Offer $offer): Offer => new Offer("together for each, by {$offer->label}", $offer->value, 'Together'),
            $people,
        )];
    }

    protected function slot(): PersonSlot
    {
        return new PersonSlot;
    }
}
