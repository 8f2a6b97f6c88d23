<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;

/** What conditions and rules of a record type are read with, as whoever asks sees it: what is hidden from them is not there. */
final readonly class SeenContext
{
    public function __construct(private AccessScope $inSight, private SchemaStore $schemas, private Company $company)
    {
    }

    public function of(RecordType $type): Context
    {
        return new Context($this->inSight->schema(), new PeopleStore($this->schemas, $this->inSight), $type, $this->company->zone());
    }
}
