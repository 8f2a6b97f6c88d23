<?php

declare(strict_types=1);

namespace App\Work\Inbound;

/** What somebody wrote themselves: without what they quote, what their mail program writes above it, and their signature. */
final class OwnWords
{
    private const LONGEST = 200_000;

    /** What mail programs write above what is quoted, in some languages; it can be broken over two lines. */
    private const ATTRIBUTION = '/^(On|Am|Le|Il|El|Em|Den|Op|Pe)\b.{4,300}'
        .'(wrote|schrieb|écrit|scritto|escribió|escreveu|skrev|schreef|a scris).{0,80}:\s*$/iu';

    private const DIVIDER = '/^\s*(-{4,}\s*(original|ursprüngliche|forwarded|weitergeleitete|message d|mensagem).*|_{8,}|-{5,})\s*$/iu';

    private const SECOND = '/^\*?(Sent|Date|Gesendet|Datum|To|An|Envoyé|Enviado)\*?:/u';

    private const HEADER = '/^\*?(From|Von|De|Da|Van|Från)\*?:\s.+/u';

    public static function of(string $text): string
    {
        $lines = preg_split('/\R/u', mb_strcut(trim($text), 0, self::LONGEST)) ?: [];
        $own = [];
        foreach ($lines as $index => $line) {
            $next = $lines[$index + 1] ?? '';
            $isEnd = preg_match('/^-- ?$/', $line) === 1 || preg_match(self::DIVIDER, $line) === 1
                || preg_match(self::ATTRIBUTION, $line) === 1
                || (mb_strlen($line) < 300 && preg_match(self::ATTRIBUTION, "{$line} {$next}") === 1 && trim($line) !== '')
                || (preg_match(self::HEADER, $line) === 1 && preg_match(self::SECOND, $next) === 1);
            if ($isEnd) {
                break;
            }
            if (preg_match('/^\s*>/', $line) !== 1) {
                $own[] = rtrim($line);
            }
        }

        return trim((string) preg_replace('/\n{3,}/', "\n\n", implode("\n", $own)));
    }
}
