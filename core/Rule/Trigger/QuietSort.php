<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** What has not happened while a record was quiet: no change, no activity, no reply, or a value that was kept. */
final readonly class QuietSort implements Worded
{
    /** By what a rule file calls it. */
    public const SAID = [
        'change' => 'has not been changed', 'activity' => 'has seen no activity', 'reply' => 'has had no reply', self::VALUE => 'has kept',
    ];

    public const VALUE = 'value';

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return is_string($json) ? (self::SAID[$json] ?? null) : null;
    }

    /** "Has kept" goes on with what was kept, and is nothing by itself. */
    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $wanted = $around['of'] ?? null;
        $found = [];
        foreach (self::SAID as $sort => $said) {
            $end = ($sort === self::VALUE) === ($wanted === self::VALUE) ? $typed->words($at, $said) : null;
            if ($end !== null) {
                $found[] = new Parsed($sort, $end);
            }
        }

        return $found;
    }

    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $sort = $node->text() ?? '';
        if (! isset(self::SAID[$sort])) {
            return $context->gap(
                'choose what stays away',
                $node->at,
                Editor::choose('What stays away', $this->offers(...)),
                'missing',
                Words::say('Choose what has not happened.'),
            );
        }
        $context->choice(self::SAID[$sort], WordRole::Value, $node->at, $this->offers(...));

        return $sort;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return ['enum' => array_keys(self::SAID)];
    }

    /** @return list<Offer> */
    private function offers(): array
    {
        $offers = [];
        foreach (self::SAID as $sort => $said) {
            $offers[] = new Offer($sort === self::VALUE ? 'has kept a value' : $said, $sort);
        }

        return $offers;
    }
}
