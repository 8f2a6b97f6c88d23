<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** What can happen on the way of a slip. */
enum SlipEventKind: string
{
    case Sent = 'sent';
    case Nudged = 'nudged';
    case Unreached = 'unreached';       // there is no address to write to
    case PassedOn = 'passed_on';        // the next in the list is asked
    case HandedOver = 'handed_over';    // whoever was asked has left, and who took over is asked
    case Answered = 'answered';
    case Corrected = 'corrected';       // whoever answered has said something else since
    case SentAgain = 'sent_again';      // with a new link
    case Ended = 'ended';
}
