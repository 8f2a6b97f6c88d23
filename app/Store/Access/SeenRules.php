<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\Rules\StoredRule;
use App\Store\Library\KeptStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Condition\ConditionReader;
use VividLedger\House\Directory;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Problem;
use VividLedger\Template\LetterFields;

/** Which rules, and which of what rules name, somebody may read: those that name nothing that is hidden from them. */
final readonly class SeenRules
{
    public function __construct(
        private AccessScope $inSight,
        private SchemaStore $schemas,
        private Directory $directory,
        private Company $company,
        private KeptStore $kept,
    ) {
    }

    /** @param  array<mixed>  $file  of a rule, finished or not */
    public function may(array $file): bool
    {
        if ($this->inSight->isEverything()) {
            return true;
        }
        $zone = $this->company->zone();
        $all = new RuleReader($this->schemas->schema(), $this->directory, $zone);
        $theirs = new RuleReader($this->inSight->schema(), $this->directory, $zone);

        // What nobody can read is no secret.
        return self::same($all->read($file)->problems, $theirs->read($file)->problems);
    }

    /** Whether they may read the page of a rule that is in force. */
    public function mayPage(int $rule): bool
    {
        return $this->inSight->isEverything()
            || $this->may(StoredRule::query()->with('currentPage')->find($rule)->currentPage->file ?? []);
    }

    /** @param  array<mixed>  $file  of a condition that is kept under a name */
    public function mayCondition(RecordType $type, array $file): bool
    {
        if ($this->inSight->isEverything()) {
            return true;
        }
        $all = $this->kept->context($type);
        $theirs = new Context($this->inSight->schema(), $this->directory, $this->inSight->sight()->type($type), $this->company->zone());
        ConditionReader::read($all, new Node($file));
        ConditionReader::read($theirs, new Node($file));

        return self::same($all->sheet->problems, $theirs->sheet->problems);
    }

    /** Whether a letter of a type merges nothing that is hidden from them. */
    public function mayLetter(RecordType $type, string $subject, string $body): bool
    {
        return $this->inSight->isEverything()
            || LetterFields::known($this->inSight->schema(), $this->inSight->sight()->type($type), "{$subject} {$body}");
    }

    /**
     * @param  list<Problem>  $all
     * @param  list<Problem>  $theirs
     */
    private static function same(array $all, array $theirs): bool
    {
        $places = static fn (array $problems): array => array_map(
            static fn (Problem $problem): string => "{$problem->at} {$problem->code}", $problems,
        );

        return array_diff($places($theirs), $places($all)) === [];
    }
}
