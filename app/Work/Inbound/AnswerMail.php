<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use App\StandIn\Eml;
use Symfony\Component\Mime\Email;

/** An answer to a letter, as the mail program of whoever got it would write it. */
final class AnswerMail
{
    public static function of(Eml $letter, string $from, string $text): string
    {
        $subject = $letter->header('Subject');
        $to = preg_match('/[^\s<>,]+@[^\s<>,]+/', $letter->header('Reply-To') ?: $letter->header('From'), $found) === 1 ? $found[0] : $from;
        $id = $letter->header('Message-ID');
        $email = (new Email)->from($from)->to($to)->subject(str_starts_with($subject, 'Re: ') ? $subject : "Re: {$subject}")->text($text);
        $email->getHeaders()->addIdHeader('Message-ID', bin2hex(random_bytes(12)).'@'.substr(strrchr($from, '@') ?: '@localhost', 1));
        if ($id !== '') {
            $email->getHeaders()->addTextHeader('In-Reply-To', "<{$id}>");
            $email->getHeaders()->addTextHeader('References', "<{$id}>");
        }

        return $email->toString();
    }
}
