<?php

declare(strict_types=1);

namespace App\Store\Rules;

use VividLedger\Schema\RecordType;

/** A rule once more, for the same records or for others; what does not fit there shows as gaps in the new draft. */
final readonly class RuleCopy
{
    private const NAME_LENGTH = 80;

    /**
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    public static function of(array $file, RecordType $on): array
    {
        $name = is_string($file['name'] ?? null) ? $file['name'] : '';
        $file['name'] = mb_substr($name, 0, self::NAME_LENGTH - 7).' (copy)';
        $file['on'] = $on->name;

        return $file;
    }
}
