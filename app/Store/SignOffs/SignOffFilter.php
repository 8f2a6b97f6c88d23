<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use VividLedger\SignOff\SignOffStatus;

/** Which sign-offs somebody wants to see, of those that they may. */
final readonly class SignOffFilter
{
    /**
     * @param  string  $search  words of the record or of the rule, or the number of the record
     * @param  ?string  $type  name of the record type
     * @param  ?int  $person  id of somebody who was asked
     */
    public function __construct(
        public string $search = '',
        public ?SignOffStatus $status = null,
        public ?string $type = null,
        public ?int $rule = null,
        public ?int $person = null,
    ) {
    }

    public function isNone(): bool
    {
        return $this->search === '' && $this->status === null && $this->type === null && $this->rule === null && $this->person === null;
    }
}
