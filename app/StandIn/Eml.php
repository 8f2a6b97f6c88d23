<?php

declare(strict_types=1);

namespace App\StandIn;

use ZBateson\MailMimeParser\Header\IHeader;
use ZBateson\MailMimeParser\MailMimeParser;
use ZBateson\MailMimeParser\Message\IMessagePart;

/** A mail as it comes over the wire (RFC 5322 and MIME), as far as a mail room shows it. */
final readonly class Eml
{
    /** @param  array<string, string>  $headers  decoded, by name in lower case; of several with one name, the first */
    private function __construct(public array $headers, private string $text, private string $html)
    {
    }

    public static function read(string $raw): self
    {
        // Broken mail makes PHP complain at every turn; what can be read of it is enough.
        set_error_handler(static fn (): bool => true);
        try {
            $mail = (new MailMimeParser)->parse($raw, false);
            $headers = [];
            foreach ($mail->getAllHeaders() as $header) {
                $headers[strtolower($header->getName())] ??= self::decoded($header);
            }
            $html = $mail->getHtmlPart() === null ? '' : self::content($mail->getHtmlPart());
            $text = $mail->getTextPart() === null ? strip_tags($html) : self::content($mail->getTextPart());

            return new self($headers, trim($text), trim($html));
        } finally {
            restore_error_handler();
        }
    }

    public function header(string $name): string
    {
        $value = $this->headers[strtolower($name)] ?? '';

        return $name === 'Message-ID' ? trim($value, ' <>') : $value;
    }

    public function text(): string
    {
        return $this->text;
    }

    public function html(): string
    {
        return $this->html;
    }

    private static function content(IMessagePart $part): string
    {
        $text = (string) $part->getContent();

        // Nothing, also where nobody knows its character set.
        return $text !== '' ? $text : mb_scrub((string) $part->getBinaryContentStream()?->getContents());
    }

    private static function decoded(IHeader $header): string
    {
        $raw = trim((string) preg_replace('/\r?\n[ \t]+/', ' ', $header->getRawValue()));
        $decoded = @iconv_mime_decode($raw, ICONV_MIME_DECODE_CONTINUE_ON_ERROR, 'UTF-8');

        return is_string($decoded) ? $decoded : mb_scrub($raw);
    }
}
