<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;

/** One thing that proofreading looks for. Each is one file. */
interface Check
{
    /** @return list<Remark> */
    public function remarks(RuleAmongOthers $among): array;
}
