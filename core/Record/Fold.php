<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** Text without regard to upper and lower case, as conditions compare it. */
final class Fold
{
    /**
     * Letters whose lower case MariaDB's LOWER() does not know (it follows an older edition of Unicode). They are left
     * alone here too, because a condition has to mean the same in PHP and in SQL; FoldTest compares all of Unicode.
     */
    private const UNKNOWN_TO_SQL = '\x{220}\x{23A}-\x{37F}\x{3CF}-\x{3D8}\x{3F4}-\x{3FF}\x{48A}\x{4C0}\x{4C5}\x{4C9}\x{4CD}'
        .'\x{4F6}\x{4FA}-\x{52E}\x{10A0}-\x{1CBF}\x{1E9E}\x{1EFA}-\x{1EFE}\x{2132}\x{2183}\x{2C00}-\x{A7F5}\x{10400}-\x{1E921}';

    public static function text(string $text): string
    {
        if (preg_match('/[^\x00-\x7F]/', $text) !== 1) {
            return strtolower($text);
        }

        return (string) preg_replace_callback(
            '/[^'.self::UNKNOWN_TO_SQL.']+/u',
            static fn (array $run): string => mb_convert_case($run[0], MB_CASE_LOWER_SIMPLE, 'UTF-8'),
            $text,
        );
    }
}
