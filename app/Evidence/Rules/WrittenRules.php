<?php

declare(strict_types=1);

namespace App\Evidence\Rules;

use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Rules\RuleDoor;
use App\Store\Rules\RuleStore;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Rule;
use VividLedger\Words\Words;

/** Reads a rule as it is being written, in the set in which it stands. */
final readonly class WrittenRules
{
    /** No page has this number: what is being written stands beside the pages. */
    private const UNPUBLISHED = 1_000_000;

    public function __construct(private RuleDoor $door, private RulesInForce $rules)
    {
    }

    /**
     * @param  array<mixed>  $file
     * @param  ?int  $id  null for a rule that is not kept yet
     */
    public function page(array $file, ?int $id): RulePage
    {
        return $this->door->read($file, $id ?? RulesInForce::UNKEPT, self::UNPUBLISHED, $this->rules->eitherOr($id));
    }

    /**
     * @param  array<mixed>  $file
     *
     * @throws DomainError when it does not read soundly
     */
    public function finished(array $file, ?int $id): Rule
    {
        $page = $this->page($file, $id);

        return $page->rule ?? throw new DomainError(
            'unfinished_rule',
            Words::say('The rule is not finished, so it cannot be played yet.'),
            RefusedFor::Invalid,
            RuleStore::listed($page->problems),
        );
    }
}
