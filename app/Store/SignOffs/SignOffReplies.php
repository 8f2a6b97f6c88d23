<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\SignOffs\StoredSignOff;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use VividLedger\SignOff\Answer;
use VividLedger\Words\Words;

/**
 * An answer to a letter about a sign-off: its first word is the answer, what stands behind it the comment. Nobody can take an answer
 * back, so only what is beyond doubt counts as one: "No objections" is no no, and "Yes, if it is cheaper" no yes.
 */
final readonly class SignOffReplies
{
    private const YES = [
        'yes', 'ok', 'okay', 'agreed', 'approved', 'approve', 'ja', 'einverstanden', 'genehmigt', 'freigegeben', 'zugestimmt',
    ];

    private const NO = ['no', 'declined', 'decline', 'rejected', 'reject', 'refused', 'nein', 'abgelehnt'];

    /** Behind a yes these make it none, or one that hangs on something. */
    private const NOT_YES = [
        ...self::NO, 'not', 'but', 'if', 'unless', 'until', 'except', 'provided', 'however', 'wait', 'nicht', 'kein', 'keine', 'keinen',
        'aber', 'wenn', 'falls', 'sofern', 'außer', 'jedoch', 'erst',
    ];

    /** Behind a no these may mean a yes. */
    private const NOT_NO = [
        ...self::YES, 'agree', 'fine', 'objection', 'objections', 'problem', 'problems', 'worries', 'einwand', 'einwände', 'bedenken',
        'ordnung', 'gern', 'gerne',
    ];

    private const COMMENT = 2000;

    public function __construct(private HouseClock $clock, private SignOffService $desk, private SignOffNotes $notes)
    {
    }

    /**
     * Whoever answered what cannot be taken is told so by a letter, at the address they were asked at.
     *
     * @throws DomainError when it is not understood, cannot be taken, or its address leads nowhere
     */
    public function take(string $token, string $text): StoredSignOff
    {
        [$answer, $comment] = self::read($text);
        try {
            $seat = SignOffLink::seat($token, $this->clock->now());
            if ($answer === null) {
                $message = Words::say('It was not plain whether that was a yes or a no.');
                throw new DomainError('not_understood', $message, RefusedFor::Invalid);
            }

            return $this->desk->answer($seat->sign_off_id, $seat->person_id, $answer, $comment);
        } catch (DomainError $refused) {
            $asked = SignOffLink::whose($token);
            if ($asked !== null) {
                $this->notes->notTaken($asked, $refused, $text);
            }
            throw $refused;
        }
    }

    /** @return array{?Answer, string} what is said, null when that is not beyond doubt; and the rest of the same paragraphs */
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
        // The word stands alone, or something parts it from what follows.
        if (preg_match('/^["“\'*]*(\p{L}+)["”\'*]*\s*(?:[.,!:;–\n-]|$)[\s.,!:;–-]*(.*)$/us', $said, $found) !== 1) {
            return [null, ''];
        }
        preg_match_all('/\p{L}+/u', mb_strtolower($found[2]), $rest);
        $word = mb_strtolower($found[1]);
        $means = static fn (array $words, array $others): bool => in_array($word, $words, true)
            && array_intersect($others, $rest[0]) === [];
        $answer = $means(self::YES, self::NOT_YES) ? Answer::Yes : ($means(self::NO, self::NOT_NO) ? Answer::No : null);

        return [$answer, $answer === null ? '' : mb_substr(trim($found[2]), 0, self::COMMENT)];
    }
}
