<?php

declare(strict_types=1);

namespace VividLedger\Template;

use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** What a text merges, whether it stands there in braces or as a mark of a formatted letter. */
final class LetterFields
{
    /** Whether all of it is there. */
    public static function known(Schema $schema, RecordType $type, string $text): bool
    {
        preg_match_all('/\{\s*([a-z][a-z0-9_.]*)\s*\}/', $text, $braced);
        foreach ([...$braced[1], ...RichText::merges($text)] as $name) {
            if (Pieces::named($schema, $type, $name) === null) {
                return false;
            }
        }

        return true;
    }
}
