<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Engine\Refusal;
use VividLedger\Record\Change;

/** A rule's line refused a change; thrown inside the transaction, so that nothing of it stays. */
final class RefusedByRule extends \RuntimeException
{
    public function __construct(public readonly Change $change, public readonly Refusal $refusal)
    {
        parent::__construct($refusal->message);
    }

    public function forPerson(): DomainError
    {
        $at = $this->refusal->field === null ? '' : "/values/{$this->refusal->field}";

        return new DomainError(
            'refused_by_rule',
            $this->refusal->message,
            RefusedFor::Invalid,
            [['at' => $at, 'code' => 'refused_by_rule', 'message' => $this->refusal->message]],
            ['rule' => $this->refusal->rule->name],
        );
    }
}
