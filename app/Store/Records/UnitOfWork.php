<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Store\Ledger\DecisionRecord;
use App\Store\Ledger\LedgerWriter;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Engine\Decision;
use VividLedger\Record\Record;

/**
 * Many decisions settled in one transaction: what they come to is written together, as long as none has to see what another
 * has not written yet.
 */
final class UnitOfWork
{
    /** @var list<array{?Record, ?Record}> */
    private array $writes = [];

    /** @var list<DecisionRecord> */
    private array $outcomes = [];

    /** @var array<int, \Closure(int): void> by the place of the outcome */
    private array $told = [];

    /** Anew after each flush, once somebody asks: what it fetches for all is asked for only where something is still to be decided. */
    private ?StoredFacts $facts = null;

    /** @param  ?\Closure(StoredFacts): void  $prepare */
    public function __construct(
        private readonly SchemaStore $schemas,
        private readonly Company $company,
        private readonly RecordWriter $records,
        private readonly LedgerWriter $ledger,
        private readonly \DateTimeImmutable $now,
        private readonly ?\Closure $prepare = null,
    ) {
    }

    /**
     * Decides with facts that see all that may matter.
     *
     * @param  string  $type  of the record decided on
     * @param  \Closure(StoredFacts): Decision  $decide
     */
    public function decided(string $type, \Closure $decide): Decision
    {
        $facts = $this->facts ??= $this->fresh();
        $decision = $decide($facts);
        if ($this->writes !== [] && $facts->hasLookedAt($type)) {
            // It was judged on records of this type, so those changed before it have to be there to be read.
            $this->flush();
            $decision = $decide($this->facts = $this->fresh());
        }

        return $decision;
    }

    /**
     * @param  array{?Record, ?Record}  $write  the record as it is kept, and as it is to be
     * @param  ?\Closure(int): void  $tell  is told the number of the entry once it is written
     */
    public function add(array $write, DecisionRecord $outcome, ?\Closure $tell = null): void
    {
        $decision = $outcome->decision;
        if ($tell !== null) {
            $this->told[count($this->outcomes)] = $tell;
        }
        $this->outcomes[] = $outcome;
        array_push($this->writes, $write, ...$decision->others);
        if ($decision->others !== [] || $decision->turns !== [] || $decision->sends()) {
            $this->flush();
        }
    }

    public function flush(): void
    {
        $this->records->write($this->writes, $this->now);
        $numbers = $this->outcomes === [] ? [] : $this->ledger->write($this->outcomes);
        foreach ($this->told as $place => $tell) {
            $tell($numbers[$place][0]);
        }
        $this->writes = $this->outcomes = $this->told = [];
        $this->facts = null;
    }

    private function fresh(): StoredFacts
    {
        $facts = new StoredFacts($this->schemas, $this->now, $this->company->zone());
        if ($this->prepare !== null) {
            ($this->prepare)($facts);
        }

        return $facts;
    }
}
