<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\StoredSignOff;
use VividLedger\SignOff\Answer;
use VividLedger\Words\Words;

/** An answer to a letter about a sign-off: its first word is the answer, what stands behind it the comment. */
final readonly class SignOffReplies
{
    private const YES = ['yes', 'ok', 'okay', 'agreed', 'agree', 'approved', 'approve', 'fine', 'ja', 'oui', 'si'];

    private const NO = ['no', 'declined', 'decline', 'rejected', 'reject', 'refused', 'disagree', 'nein', 'non'];

    private const COMMENT = 2000;

    public function __construct(private HouseClock $clock, private SignOffDesk $desk)
    {
    }

    /** @throws Refused when it is not understood, cannot be taken, or its address leads nowhere */
    public function take(string $token, string $text): StoredSignOff
    {
        $seat = SignOffLink::seat($token, $this->clock->now());
        [$answer, $comment] = self::read($text);
        if ($answer === null) {
            $message = Words::say('Begin the answer with “yes” or “no”, and behind a no write why.');
            throw new Refused('not_understood', $message, RefusedFor::Invalid);
        }

        return $this->desk->answer($seat->sign_off_id, $seat->person_id, $answer, $comment);
    }

    /** @return array{?Answer, string} what is said, null when that is not plain; and the rest of the same paragraphs */
    public static function read(string $text): array
    {
        $own = [];
        foreach (preg_split('/\R/u', trim($text)) ?: [] as $line) {
            // What was quoted, and what the mail program writes above it, is not what they say.
            if (preg_match('/^\s*>|^-{2,}\s*$|^_{5,}|^(On|Am|Le|Il)\b.{5,120}:\s*$|^-----/u', $line) === 1) {
                break;
            }
            $own[] = trim($line);
        }
        $said = trim(implode("\n", $own));
        if (preg_match('/^["“\'*]*(\p{L}+)["”\'*]*[\s.,!:;–-]*(.*)$/us', $said, $found) !== 1) {
            return [null, ''];
        }
        $word = mb_strtolower($found[1]);
        $answer = in_array($word, self::YES, true) ? Answer::Yes : (in_array($word, self::NO, true) ? Answer::No : null);

        return [$answer, mb_substr(trim($found[2]), 0, self::COMMENT)];
    }
}
