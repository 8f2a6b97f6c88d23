<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** What of a line another line can wait for. */
enum WaitedSort: string
{
    case Tasks = 'task';
    case SignOff = 'sign-off';
    case Slip = 'slip';
    case Call = 'call';

    /** As it is said of a line: "the task of line 2". */
    public function of(int $place): string
    {
        return "the {$this->value} of line ".($place + 1);
    }
}
