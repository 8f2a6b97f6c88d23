<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Facts\Test;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Schema\Path;

/**
 * A statement about a record that holds or does not. There is no third answer: every comparison with an empty value is
 * false, except those that say "not". The closure and the query of one condition always agree.
 */
interface Condition extends Test
{
    /**
     * @template Q
     *
     * @param  QueryWriter<Q>  $writer
     * @return Q
     */
    public function query(QueryWriter $writer): mixed;

    /** The same judgement with what was seen on the way; slower, for explanations only. */
    public function explain(View $view, Display $display): Finding;

    /** @return list<Path> every path it reads */
    public function paths(): array;
}
