<?php

declare(strict_types=1);

namespace VividLedger\Engine;

/** Why a pencilled line was struck out, for programs; what it says to people stands beside it. */
enum StruckCode: string
{
    case Until = 'until';
    case FiredAgain = 'fired_again';
    case TaskDone = 'task_done';
    case TaskNotDone = 'task_not_done';
    case SignedOff = 'signed_off';   // the sign-off it waited for has ended otherwise
    case SlipEnded = 'slip_ended';   // the slip it waited for was answered otherwise, or not at all
    case CallEnded = 'call_ended';   // the call it waited for has ended otherwise
    case TaskWithoutDate = 'task_without_date';
    case TaskCancelled = 'task_cancelled';
    case TaskLapsed = 'task_lapsed'; // the task it waited for has lost its point
    case NotMet = 'not_met';         // what it waited for did not become true in time
    case NoSuchLine = 'no_such_line';
    case NewPage = 'new_page';
    case RecordDeleted = 'record_deleted';
    case RuleRetired = 'rule_retired';
    case NotInForce = 'not_in_force';
    case Reversed = 'reversed';
    case ByHand = 'by_hand';
    case OutOfTime = 'out_of_time';
}
