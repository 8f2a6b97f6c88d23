<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use Brick\Math\BigDecimal;
use VividLedger\Facts\View;
use VividLedger\People\Who;
use VividLedger\Schema\Path;

/** Up the tree, level after level, to the first person whose limit suffices for an amount; all of them where nobody's does. */
final readonly class UpToLimit implements Approvers
{
    public function __construct(private Who $from, private Path $amount)
    {
    }

    public function people(View $view): array
    {
        $amount = $view->value($this->amount);
        $amount = BigDecimal::of(is_string($amount) ? $amount : '0');
        $people = [];
        foreach (Tree::above($this->from->find($view)->person, $view->facts) as $manager) {
            $people[] = $manager;
            if ($manager->limit !== null && $amount->isLessThanOrEqualTo($manager->limit)) {
                break;
            }
        }

        return $people;
    }
}
