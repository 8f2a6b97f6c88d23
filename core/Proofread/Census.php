<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

use VividLedger\People\Who;
use VividLedger\Rule\Rule;

/** What proofreading may ask about the records there are. */
interface Census
{
    /**
     * For how many of the records that meet the rule's conditions a person expression finds nobody.
     *
     * @return array{int, int} for how many, of how many that were looked at
     */
    public function withNobody(Rule $rule, Who $person): array;
}
