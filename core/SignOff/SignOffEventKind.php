<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** What can happen on the way of a sign-off. */
enum SignOffEventKind: string
{
    case Asked = 'asked';
    case AskedAgain = 'asked_again';
    case Reminded = 'reminded';
    case Said = 'said';                 // somebody answered
    case Counted = 'counted';           // the route answered for somebody whose time ran out
    case SaidBefore = 'said_before';    // they agreed at an earlier step, and are not asked twice
    case PassedOn = 'passed_on';        // somebody else is asked instead
    case StoodIn = 'stood_in';          // nobody was found, and the fallback is asked
    case Deputised = 'deputised';       // they are absent, and their deputy is asked
    case CameBack = 'came_back';        // they were absent and are back, and their deputy need not answer any more
    case HandedOver = 'handed_over';    // they gave it to somebody else
    case Rerouted = 'rerouted';         // the way leads to somebody else by now
    case AskedBack = 'asked_back';      // a question to whoever asked for it
    case AnsweredBack = 'answered_back';
    case WentOn = 'went_on';            // a question stayed without an answer, and time goes on
    case RouteChanged = 'route_changed'; // it goes on along another route
    case StepAgreed = 'step_agreed';
    case StepLeftOut = 'step_left_out'; // its own condition did not hold
    case Ended = 'ended';
}
