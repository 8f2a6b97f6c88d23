<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\People\Who;

/** So many managers above somebody, one after another: "2 levels up from the owner". */
final readonly class LevelsUp implements Approvers
{
    public function __construct(private Who $from, private int $levels)
    {
    }

    public function people(View $view): array
    {
        return array_slice(iterator_to_array(Tree::above($this->from->find($view)->person, $view->facts), false), 0, $this->levels);
    }
}
