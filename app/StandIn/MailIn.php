<?php

declare(strict_types=1);

namespace App\StandIn;

use App\Store\Refused;
use App\Store\SignOffLink;
use App\Store\SignOffReplies;
use Symfony\Component\Mime\Email;

/**
 * The way in for mail: whatever serves mail hands over a letter as it came (RFC 5322), by a pipe or over HTTP. A letter that answers
 * one of ours is known by the address it came to, which holds a signed token.
 */
final readonly class MailIn
{
    /** Where a server that takes mail notes to whom a letter really went. */
    private const ADDRESSED = ['Delivered-To', 'X-Original-To', 'To', 'Cc'];

    public function __construct(private SignOffReplies $signOffs)
    {
    }

    /**
     * @return bool whether it answers a letter of ours
     *
     * @throws Refused when it does and cannot be taken
     */
    public function take(string $raw): bool
    {
        $letter = Eml::read($raw);
        foreach (self::ADDRESSED as $name) {
            $token = SignOffLink::inAddress($letter->header($name));
            if ($token !== null) {
                $this->signOffs->take($token, $letter->text());

                return true;
            }
        }

        return false;
    }

    /** A letter that answers another, as a mail program would write it. */
    public static function answer(string $to, string $from, string $subject, string $text): string
    {
        return (new Email)->from($from)->to($to)->subject(str_starts_with($subject, 'Re: ') ? $subject : "Re: {$subject}")->text($text)
            ->toString();
    }
}
