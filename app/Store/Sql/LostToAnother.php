<?php

declare(strict_types=1);

namespace App\Store\Sql;

/** What a decision was made on is not there any more: the transaction is begun again, as after a deadlock. */
final class LostToAnother extends \RuntimeException
{
    public function __construct(string $what)
    {
        parent::__construct("The version that was read is gone: {$what}.");
    }
}
