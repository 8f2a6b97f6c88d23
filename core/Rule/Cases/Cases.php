<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Condition\ChildrenRead;
use VividLedger\Rule\Line\Performed;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\ReadsChildren;

/** Lines in cases: when the time of the cases comes, the first that holds is the one, and the lines of the others are not done. */
final readonly class Cases implements Performed, ReadsChildren
{
    /** @param  list<CaseBranch>  $branches  in the order of the page */
    public function __construct(public array $branches)
    {
    }

    public function perform(ActionContext $performance): void
    {
        $missed = [];
        foreach ($this->branches as $branch) {
            $finding = $branch->condition?->explain($performance->view(), $performance->display);
            if ($finding === null || $finding->held) {
                // What held says its heading already.
                $performance->decided($branch->said, $finding === null ? implode('; ', $missed) : '');
                $performance->begin($branch->lines);

                return;
            }
            $missed[] = $finding->miss();
        }
        $performance->decided('', implode('; ', $missed));
    }

    /** @return list<Placed> the lines of all its cases that are done as soon as their case is known */
    public function atOnce(): array
    {
        $lines = [];
        foreach ($this->branches as $branch) {
            foreach ($branch->lines as $placed) {
                array_push($lines, ...$placed->withItsCases());
            }
        }

        return array_values(array_filter($lines, static fn (Placed $placed): bool => $placed->timing === null));
    }

    public function childrenRead(): array
    {
        return array_merge(...array_map(
            static fn (CaseBranch $branch): array => $branch->condition === null ? [] : ChildrenRead::in($branch->condition),
            $this->branches,
        ));
    }
}
