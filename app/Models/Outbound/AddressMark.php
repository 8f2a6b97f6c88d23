<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use App\Models\Casts\Instant;
use App\Models\Columns;
use App\Models\LedgerModel;

/**
 * What is known of an address: letters to it bounce, or it does not want to be chased.
 *
 * @property int $id
 * @property string $address
 * @property string $kind
 * @property \DateTimeImmutable $at
 * @property string $because
 */
final class AddressMark extends LedgerModel
{
    public const BOUNCES = 'bounces';

    public const UNSUBSCRIBED = 'unsubscribed';

    protected $table = 'address_marks';

    protected $casts = [
        'at' => Instant::class,
    ];

    public static function set(string $address, string $kind, \DateTimeImmutable $at, string $because): void
    {
        self::rows()->insertOrIgnore([
            'address' => mb_strtolower(mb_substr($address, 0, 190)), 'kind' => $kind, 'at' => Columns::moment($at),
            'because' => mb_substr($because, 0, 500),
        ]);
    }

    /**
     * @param  list<string>  $addresses
     * @return array<string, list<string>> kinds by address, of those that are marked
     */
    public static function among(array $addresses): array
    {
        $marks = [];
        $wanted = array_values(array_unique(array_map(mb_strtolower(...), $addresses)));
        foreach ($wanted === [] ? [] : self::rows()->whereIn('address', $wanted)->get(['address', 'kind']) as $row) {
            $marks[$row->address][] = $row->kind;
        }

        return $marks;
    }
}
