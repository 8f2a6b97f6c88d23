<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Condition\ChildrenRead;
use VividLedger\Rule\Line\Line;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\ReadsChildren;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Lines in cases: when the time of the cases comes, the first that holds is the one, and the lines of the others are not done. */
final readonly class Cases implements Line, ReadsChildren
{
    /** @param  list<CaseBranch>  $branches  in the order of the page */
    public function __construct(public array $branches)
    {
    }

    public static function kind(): string
    {
        return '';
    }

    public static function shape(): Shape
    {
        throw new \LogicException('Cases are made of their headings, and are none themselves.');
    }

    public static function label(): string
    {
        return '';
    }

    public static function read(Context $context, Node $node): null
    {
        return null;
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
