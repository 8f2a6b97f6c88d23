<?php

declare(strict_types=1);

namespace App\Store\Library;

use App\Models\Library\LetterVersion;
use App\Models\Library\StoredCondition;
use App\Models\Library\StoredLadder;
use App\Models\Library\StoredLetter;
use App\Models\Library\StoredRoute;
use App\Models\Rules\StoredRule;
use App\Models\Slips\SlipForm;
use App\Models\Slips\SlipFormVersion;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Rules\RuleStore;
use App\Store\Rules\RuleWatching;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\WithoutNamed;
use VividLedger\House\Directory;
use VividLedger\Rule\Ladder\Ladders;
use VividLedger\Rule\Letter\Letter;
use VividLedger\Rule\Slip\SlipSlot;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\KeyTracker;
use VividLedger\Shape\Node;
use VividLedger\Shape\Part;
use VividLedger\Shape\Problem;
use VividLedger\SignOff\KeptRoute;
use VividLedger\SignOff\StepsSlot;
use VividLedger\Slip\QuestionsSlot;
use VividLedger\Template\RichText;
use VividLedger\Words\Words;

/** What the company keeps once and rules use by name: conditions, letters, slips, ladders and routes. */
final readonly class KeptStore
{
    private const NAME_LENGTH = 60;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private HouseClock $clock,
        private Company $company,
        private Directory $directory,
        private RuleWatching $index,
    ) {
    }

    /**
     * Keeps a condition under a name: a new one, or the next version of one.
     *
     * @param  array<mixed>  $file  the condition as a rule file writes it
     * @param  ?int  $version  of the one being changed, as the person saw it
     * @return int its id
     *
     * @throws DomainError with every problem at its word
     */
    public function keepCondition(RecordType $type, ?int $id, ?int $version, string $name, array $file): int
    {
        $name = $this->named($name);
        $context = $this->context($type);
        $reads = new KeyTracker;
        $condition = ConditionReader::read($context, new Node($file, '/file', $reads));
        array_push($context->sheet->problems, ...$reads->unknown($file, $context->sheet->problems, '/file'));
        if ($condition === null || $context->sheet->problems !== []) {
            $message = Words::say('The condition is not finished. {message}', message: $context->sheet->problems[0]->message ?? '');
            throw new DomainError('unfinished_condition', $message, RefusedFor::Invalid, RuleStore::listed($context->sheet->problems));
        }

        return $this->db->transaction(function () use ($type, $id, $version, $name, $file): int {
            $this->mustBeFree(StoredCondition::query()->where('record_type', $type->name)->where('name', $name), $id);
            if ($id === null) {
                $id = StoredCondition::query()->create(['record_type' => $type->name, 'name' => $name, 'file' => $file])->id;
            } else {
                $before = $this->mustBeCurrent(StoredCondition::query()->lockForUpdate()->find($id), $version);
                $this->mustKeepName($before->name, $name, $this->usersOf('named', $before->name));
                $before->update(['name' => $name, 'file' => $file, 'version' => $before->version + 1]);
            }
            $this->changed('named', $name);

            return $id;
        });
    }

    /** @throws DomainError while rules use it */
    public function dropCondition(int $id): void
    {
        $row = StoredCondition::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such condition.'));
        $this->mustBeUnused($row->name, $this->usersOf('named', $row->name));
        $row->delete();
    }

    /**
     * Keeps a letter: a new one, or the next version of one. Earlier versions stay, and so does what was sent.
     *
     * @throws DomainError
     */
    public function keepLetter(RecordType $type, ?int $id, ?int $version, string $name, string $subject, string $body, int $by): int
    {
        $name = $this->named($name);
        $context = $this->context($type);
        $clean = RichText::clean($body);
        if (Letter::read($context, new Node($subject, '/subject'), new Node($clean, '/body'), true) === null) {
            $message = $context->sheet->problems[0]->message ?? Words::say('The letter is not finished.');
            throw new DomainError('unfinished_letter', $message, RefusedFor::Invalid, RuleStore::listed($context->sheet->problems));
        }

        return $this->db->transaction(function () use ($type, $id, $version, $name, $subject, $clean, $by): int {
            $this->mustBeFree(StoredLetter::query()->where('name', $name), $id);
            $number = 1;
            if ($id === null) {
                $id = StoredLetter::query()->create(['record_type' => $type->name, 'name' => $name])->id;
            } else {
                $before = $this->mustBeCurrent(StoredLetter::query()->lockForUpdate()->find($id), $version);
                $this->mustKeepName($before->name, $name, $this->usersOf('letter', $before->name));
                $number = $before->version + 1;
                $before->update(['name' => $name, 'version' => $number]);
            }
            LetterVersion::query()->create([
                'letter_id' => $id, 'number' => $number, 'subject' => trim($subject), 'body' => $clean, 'at' => $this->clock->now(),
                'by_id' => $by,
            ]);
            $this->changed('letter', $name);

            return $id;
        });
    }

    /** @throws DomainError while rules use it */
    public function dropLetter(int $id): void
    {
        $row = StoredLetter::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such letter.'));
        $this->mustBeUnused($row->name, $this->usersOf('letter', $row->name));
        $row->delete();
    }

    /**
     * Keeps a ladder under a name: a new one, or the next version of one.
     *
     * @param  array<mixed>  $rungs  as a rule file writes them
     */
    public function keepLadder(?int $id, ?int $version, string $name, array $rungs): int
    {
        $name = $this->named($name);
        $types = $this->schemas->schema()->types;
        $any = $types[array_key_first($types) ?? ''] ?? throw new DomainError(
            'unknown_type',
            Words::say('There is no record type yet.'),
            RefusedFor::Conflict,
        );
        $context = $this->context($any);
        $reads = new KeyTracker;
        $ladder = Ladders::rungs($context, new Node($rungs, '/rungs', $reads), $name);
        array_push($context->sheet->problems, ...$reads->unknown($rungs, $context->sheet->problems, '/rungs'));
        if ($ladder === null || $context->sheet->problems !== []) {
            $message = $context->sheet->problems[0]->message ?? Words::say('The ladder is not finished.');
            throw new DomainError('unfinished_ladder', $message, RefusedFor::Invalid, RuleStore::listed($context->sheet->problems));
        }

        return $this->db->transaction(function () use ($id, $version, $name, $rungs): int {
            $this->mustBeFree(StoredLadder::query()->where('name', $name), $id);
            if ($id === null) {
                $id = StoredLadder::query()->create(['name' => $name, 'rungs' => $rungs])->id;
            } else {
                $before = $this->mustBeCurrent(StoredLadder::query()->lockForUpdate()->find($id), $version);
                $this->mustKeepName($before->name, $name, $this->usersOf('ladder', $before->name));
                $before->update(['name' => $name, 'rungs' => $rungs, 'version' => $before->version + 1]);
            }
            $this->changed('ladder', $name);

            return $id;
        });
    }

    /** @throws DomainError while rules use it */
    public function dropLadder(int $id): void
    {
        $row = StoredLadder::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such ladder.'));
        $this->mustBeUnused($row->name, $this->usersOf('ladder', $row->name));
        $row->delete();
    }

    /**
     * Keeps a route of sign-offs under a name: a new one, or the next version of one. Those that run go on as they began.
     *
     * @param  array<mixed>  $steps  as a rule file writes them
     */
    public function keepRoute(RecordType $type, ?int $id, ?int $version, string $name, array $steps): int
    {
        $name = $this->named($name);
        $context = new Context($this->schemas->schema(), $this->directory, $type, $this->company->zone());
        $reads = new KeyTracker;
        $context->row(Part::Line, new Node($steps, '/steps', $reads));
        $route = (new StepsSlot)->read($context, new Node($steps, '/steps', $reads), new Filled);
        array_push($context->sheet->problems, ...$reads->unknown($steps, $context->sheet->problems, '/steps'));
        if ($route?->file !== null) {
            $context->sheet->problems[] = new Problem('/steps', 'kept_route', Words::say('A kept route names no other.'));
        }
        if ($route === null || $context->sheet->problems !== []) {
            $message = Words::say('The route is not finished. {message}', message: $context->sheet->problems[0]->message ?? '');
            throw new DomainError('unfinished_route', $message, RefusedFor::Invalid, RuleStore::listed($context->sheet->problems));
        }

        return $this->db->transaction(function () use ($type, $id, $version, $name, $steps): int {
            $this->mustBeFree(StoredRoute::query()->where('name', $name), $id);
            if ($id === null) {
                $id = StoredRoute::query()->create(['record_type' => $type->name, 'name' => $name, 'steps' => $steps])->id;
            } else {
                $before = $this->mustBeCurrent(StoredRoute::query()->lockForUpdate()->find($id), $version);
                $this->mustKeepName($before->name, $name, $this->usersOf(KeptRoute::KEY, $before->name));
                $before->update(['name' => $name, 'steps' => $steps, 'version' => $before->version + 1]);
            }
            $this->changed(KeptRoute::KEY, $name);

            return $id;
        });
    }

    /** @throws DomainError while rules use it */
    public function dropRoute(int $id): void
    {
        $row = StoredRoute::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such route.'));
        $this->mustBeUnused($row->name, $this->usersOf(KeptRoute::KEY, $row->name));
        $row->delete();
    }

    /**
     * Keeps a reply slip: a new one, or the next version of one. Earlier versions stay, and so does what was sent.
     *
     * @param  array<mixed>  $asks  questions as a rule file writes them
     *
     * @throws DomainError
     */
    public function keepSlip(
        RecordType $type, ?int $id, ?int $version, string $name, string $subject, string $body, array $asks, int $by,
    ): int {
        $name = $this->named($name);
        $clean = RichText::clean($body);
        $context = $this->context($type);
        $reads = new KeyTracker;
        Letter::read($context, new Node($subject, '/subject'), new Node($clean, '/body'), true);
        $context->row(Part::Line, new Node($asks, '/asks', $reads));
        (new QuestionsSlot)->read($context, new Node($asks, '/asks', $reads), new Filled);
        array_push($context->sheet->problems, ...$reads->unknown($asks, $context->sheet->problems, '/asks'));
        if ($context->sheet->problems !== []) {
            $message = Words::say('The slip is not finished. {message}', message: $context->sheet->problems[0]->message);
            throw new DomainError('unfinished_slip', $message, RefusedFor::Invalid, RuleStore::listed($context->sheet->problems));
        }

        return $this->db->transaction(function () use ($type, $id, $version, $name, $subject, $clean, $asks, $by): int {
            $this->mustBeFree(SlipForm::query()->where('name', $name), $id);
            $number = 1;
            if ($id === null) {
                $id = SlipForm::query()->create(['record_type' => $type->name, 'name' => $name])->id;
            } else {
                $before = $this->mustBeCurrent(SlipForm::query()->lockForUpdate()->find($id), $version);
                $this->mustKeepName($before->name, $name, $this->usersOf(SlipSlot::KEY, $before->name));
                $number = $before->version + 1;
                $before->update(['name' => $name, 'version' => $number]);
            }
            SlipFormVersion::query()->create([
                'form_id' => $id, 'number' => $number, 'subject' => trim($subject), 'body' => $clean, 'asks' => array_values($asks),
                'at' => $this->clock->now(), 'by_id' => $by,
            ]);
            $this->changed(SlipSlot::KEY, $name);

            return $id;
        });
    }

    /** @throws DomainError while rules use it */
    public function dropSlip(int $id): void
    {
        $row = SlipForm::query()->find($id) ?? throw DomainError::missing(Words::say('There is no such slip.'));
        $this->mustBeUnused($row->name, $this->usersOf(SlipSlot::KEY, $row->name));
        $row->delete();
    }

    /**
     * @param  array<array-key, mixed>  $file
     * @return ?Condition null when it no longer reads
     */
    public function condition(RecordType $type, array $file): ?Condition
    {
        return ConditionReader::read($this->context($type), new Node($file));
    }

    public function context(RecordType $type): Context
    {
        return new Context($this->schemas->schema(), new WithoutNamed($this->directory), $type, $this->company->zone());
    }

    /**
     * Rules whose draft or page names something kept.
     *
     * @param  string  $what  "named" for a condition; else the key under which a rule names it: "letter", "slip", "handle" of a person
     * @return array<int, string> names by id
     */
    public function usersOf(string $what, string $name): array
    {
        return $this->users($what)[$name] ?? [];
    }

    /**
     * The same for everything that is kept of a sort.
     *
     * @return array<array-key, array<int, string>> names of the rules by id, by the name they use
     */
    public function users(string $what): array
    {
        $users = [];
        foreach (StoredRule::query()->with('currentPage')->get() as $rule) {
            foreach ([$rule->draft, $rule->currentPage?->file] as $file) {
                foreach (self::namesIn($file, $what) as $name) {
                    $users[$name][$rule->id] = $rule->name;
                }
            }
        }

        return $users;
    }

    /** Rules that only name it are watched for by what they now read. */
    private function changed(string $what, string $name): void
    {
        foreach (array_keys($this->usersOf($what, $name)) as $rule) {
            $this->index->watchAgain($rule);
        }
    }

    /** @return list<string> what a file names of a sort */
    private static function namesIn(mixed $file, string $what): array
    {
        if (! is_array($file)) {
            return [];
        }
        $name = $what === 'named' ? (($file['kind'] ?? null) === 'named' ? $file['name'] ?? null : null) : $file[$what] ?? null;
        $names = is_string($name) ? [$name] : [];
        foreach ($file as $below) {
            array_push($names, ...self::namesIn($below, $what));
        }

        return $names;
    }

    private function named(string $name): string
    {
        $name = trim((string) preg_replace('/\s+/u', ' ', $name));
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            $message = $name === ''
                ? Words::say('Give it a name.')
                : Words::say('A name has at most {most} characters.', most: self::NAME_LENGTH);
            $problem = ['at' => '/name', 'code' => $name === '' ? 'missing' : 'too_long', 'message' => $message];
            throw new DomainError('invalid_values', $message, RefusedFor::Invalid, [$problem]);
        }

        return $name;
    }

    /** @param  Builder<covariant SlipForm|StoredCondition|StoredLetter|StoredLadder|StoredRoute>  $same  that go by the name */
    private function mustBeFree(Builder $same, ?int $id): void
    {
        $taken = $same->lockForUpdate()->value('id');
        if ($taken !== null && $taken !== $id) {
            $message = Words::say('There is one of that name already.');
            throw new DomainError(
                'name_taken',
                $message,
                RefusedFor::Conflict,
                [['at' => '/name', 'code' => 'name_taken', 'message' => $message]],
            );
        }
    }

    /**
     * @template T of SlipForm|StoredCondition|StoredLetter|StoredLadder|StoredRoute
     *
     * @param  ?T  $row
     * @return T
     */
    private function mustBeCurrent(
        SlipForm|StoredCondition|StoredLetter|StoredLadder|StoredRoute|null $row,
        ?int $version,
    ): SlipForm|StoredCondition|StoredLetter|StoredLadder|StoredRoute {
        if ($row === null) {
            throw DomainError::missing(Words::say('It is gone.'));
        }
        if ($version !== null && $row->version !== $version) {
            throw new DomainError(
                'stale_version',
                Words::say('Somebody changed it after you opened it. Open it again to see how it reads now.'),
                RefusedFor::Conflict,
            );
        }

        return $row;
    }

    /** @param  array<int, string>  $users */
    private function mustKeepName(string $before, string $after, array $users): void
    {
        if ($before !== $after && $users !== []) {
            $problem = ['at' => '/name', 'code' => 'in_use', 'message' => Words::say('Rules use it by this name.')];
            throw new DomainError(
                'in_use',
                Words::say('‘{before}’ keeps its name while rules use it: {users}.', before: $before, users: implode(', ', $users)),
                RefusedFor::Conflict,
                [$problem],
            );
        }
    }

    /** @param  array<int, string>  $users */
    private function mustBeUnused(string $name, array $users): void
    {
        if ($users !== []) {
            throw new DomainError(
                'in_use',
                Words::say('‘{name}’ is used by {users}. Change those rules first.', name: $name, users: implode(', ', $users)),
                RefusedFor::Conflict,
            );
        }
    }
}
