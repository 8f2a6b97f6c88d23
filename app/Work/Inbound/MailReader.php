<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use App\Store\Outbound\LetterLinks;
use ZBateson\MailMimeParser\Header\AddressHeader;
use ZBateson\MailMimeParser\Header\HeaderConsts;
use ZBateson\MailMimeParser\IMessage;
use ZBateson\MailMimeParser\MailMimeParser;

/** Reads mail as it comes over the wire (RFC 5322, MIME): whose it is, what it answers, their own words, files, robots and bounces. */
final class MailReader
{
    public const MOST_BYTES = 12_000_000;

    /** A mail with more parts is read as plain text: nobody writes such, and reading it takes for ever. */
    private const MOST_PARTS = 100;

    private const MOST_FILES = 20;

    private const LONGEST_TEXT = 1_000_000;

    private const TO = ['Delivered-To', 'X-Original-To', 'Envelope-To', 'To', 'Cc'];

    /** @throws \DomainException when it is no mail, or too large */
    public static function read(string $raw): ReadMail
    {
        // Broken mail makes PHP complain at every turn; what can be read of it is enough.
        set_error_handler(static fn (): bool => true);
        try {
            return self::parsed($raw);
        } finally {
            restore_error_handler();
        }
    }

    private static function parsed(string $raw): ReadMail
    {
        if (strlen($raw) > self::MOST_BYTES) {
            throw new \DomainException('The mail is too large.');
        }
        if (trim($raw) === '') {
            throw new \DomainException('The mail is empty.');
        }
        if (preg_match_all('/^content-type:/im', $raw) > self::MOST_PARTS) {
            // The headers stay; its body counts as one text.
            [$head, $body] = preg_split('/\r?\n\r?\n/', $raw, 2) + [1 => ''];
            $head = (string) preg_replace('/^(content-type|content-transfer-encoding):[^\n]*(\n[ \t][^\n]*)*\n?/im', '', $head);
            $raw = rtrim($head)."\r\nContent-Type: text/plain; charset=utf-8\r\n\r\n".mb_scrub(mb_strcut($body, 0, self::LONGEST_TEXT));
        }
        $mail = (new MailMimeParser)->parse($raw, false);
        $from = $mail->getHeader(HeaderConsts::FROM);
        $address = $from instanceof AddressHeader ? (string) $from->getEmail() : '';
        $id = self::id((string) $mail->getHeaderValue('Message-ID'));

        return new ReadMail(
            id: $id === '' ? hash('sha256', $raw) : $id, from: mb_strtolower(self::clean($address)),
            fromName: self::clean($from instanceof AddressHeader ? (string) $from->getPersonName() : ''), to: self::to($mail),
            subject: LetterLinks::masked(self::clean((string) $mail->getHeaderValue(HeaderConsts::SUBJECT))),
            answers: self::answers($mail), words: LetterLinks::masked(OwnWords::of(self::text($mail))), isAuto: self::isAuto($mail),
            files: self::files($mail), bounce: Bounce::in($mail),
        );
    }

    /** @return list<string> */
    private static function to(IMessage $mail): array
    {
        $to = [];
        foreach (self::TO as $name) {
            foreach ($mail->getAllHeadersByName($name) as $header) {
                preg_match_all('/[^\s<>",;:()]+@[^\s<>",;:()]+/u', (string) $header->getRawValue(), $found);
                array_push($to, ...array_map(mb_strtolower(...), $found[0]));
            }
        }

        return array_values(array_unique($to));
    }

    /** @return list<string> */
    private static function answers(IMessage $mail): array
    {
        $said = (string) $mail->getHeader('In-Reply-To')?->getRawValue();
        $before = (string) $mail->getHeader('References')?->getRawValue();
        preg_match_all('/<([^<>\s]+)>/', "{$said} ".implode(' ', array_reverse(preg_split('/\s+/', trim($before)) ?: [])), $found);

        return array_values(array_unique($found[1]));
    }

    private static function text(IMessage $mail): string
    {
        try {
            $text = (string) $mail->getTextContent();
        } catch (\Throwable) {
            // A character set that nobody knows.
            $text = (string) $mail->getTextPart()?->getBinaryContentStream()?->getContents();
        }
        if (trim($text) === '') {
            $html = (string) $mail->getHtmlContent();
            // What mail programs mark as quoted is not theirs.
            $html = (string) preg_replace('#<blockquote\b.*?(</blockquote>|$)#is', '', mb_strcut($html, 0, self::LONGEST_TEXT));
            $html = (string) preg_replace('#<(script|style|head)\b.*?</\1>#is', '', $html);
            $lines = (string) preg_replace('#<(br|/p|/div|/tr|/li)\b[^>]*>#i', "\n", $html);
            $text = html_entity_decode(strip_tags($lines), ENT_QUOTES, 'UTF-8');
        }

        return mb_scrub(mb_strcut(str_replace("\0", '', $text), 0, self::LONGEST_TEXT));
    }

    /** Written by no person (RFC 3834), or sent to many. */
    private static function isAuto(IMessage $mail): bool
    {
        $value = static fn (string $name): string => strtolower(trim((string) $mail->getHeader($name)?->getRawValue()));
        $auto = $value('Auto-Submitted');

        return ($auto !== '' && $auto !== 'no') || in_array($value('Precedence'), ['bulk', 'junk', 'list', 'auto_reply'], true)
            || $value('X-Auto-Response-Suppress') !== '' || $value('X-Autoreply') !== '' || $value('X-Autorespond') !== ''
            || $value('List-Id') !== '';
    }

    /** @return list<array{name: string, type: string, content: string}> */
    private static function files(IMessage $mail): array
    {
        $files = [];
        foreach (array_slice($mail->getAllAttachmentParts(), 0, self::MOST_FILES) as $part) {
            $name = self::clean((string) $part->getFilename());
            $type = (string) $part->getContentType();
            if (in_array($type, ['message/delivery-status', 'text/rfc822-headers'], true)) {
                continue;
            }
            $content = (string) $part->getContent();
            if (str_starts_with($type, 'text/') || str_starts_with($type, 'message/')) {
                // The letter that is answered, forwarded along with the answer.
                $content = LetterLinks::masked($content);
            }
            if ($content !== '') {
                $files[] = ['name' => $name === '' ? 'file' : mb_substr($name, 0, 190), 'type' => $type, 'content' => $content];
            }
        }

        return $files;
    }

    public static function id(string $header): string
    {
        return mb_strcut(self::clean(trim($header, " \t<>")), 0, 190);
    }

    private static function clean(string $text): string
    {
        return trim((string) preg_replace('/[\x00-\x1F\x7F]+/u', ' ', mb_scrub($text)));
    }
}
