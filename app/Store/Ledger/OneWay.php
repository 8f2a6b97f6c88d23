<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use Illuminate\Database\Migrations\Migration;

/** A migration that made what the ledger stands in. Taking it back would lose what is kept there, so it says that it cannot. */
abstract class OneWay extends Migration
{
    public function down(): never
    {
        throw new \RuntimeException(
            'This migration cannot be rolled back: what is kept in its tables would be lost. Restore a dump instead, or begin anew with '
                .'“php artisan migrate:fresh”.',
        );
    }
}
