<?php

declare(strict_types=1);

namespace App\Models\Outbound;

/** What a mail that came in turned out to be. */
enum MailKind: string
{
    case Reply = 'reply';
    case Decision = 'decision';     // it answers a sign-off
    case Auto = 'auto';             // a robot wrote it: somebody is away, or a ticket was opened somewhere
    case Bounce = 'bounce';         // a letter of ours could not be delivered
    case Loop = 'loop';             // too many of them: two robots are talking
    case Refused = 'refused';       // it came to something, and could not be taken
    case Unknown = 'unknown';       // it answers nothing of ours
}
