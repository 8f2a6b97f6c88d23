<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

use App\Store\Access\AccessEntries;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Container\Container;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/**
 * All that a company has set up, as texts by path; and texts brought in, all of them or none. What is here and not among them stays.
 */
final readonly class Setups
{
    /** Counts up when a file of before cannot be read any more. */
    public const FORMAT = 1;

    public function __construct(
        private Container $app,
        private Connection $db,
        private SchemaStore $schemas,
        private AccessEntries $entries,
    ) {
    }

    /** @return array<string, string> */
    public function export(): array
    {
        $texts = ['setup.json' => json_encode([
            '$schema' => 'setup.schema.json', 'format' => self::FORMAT, 'company' => $this->app->make(Company::class)->name(),
            'timeZone' => $this->app->make(Company::class)->zone()->getName(),
            'at' => Value::instantText($this->app->make(HouseClock::class)->now()),
        ], JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR)."\n"];
        foreach (SetupParts::all() as $part) {
            foreach ($this->app->make($part)->documents() as $place => $document) {
                $number = $part::isInOrder() ? sprintf('%03d-', ($place + 1) * 10) : '';
                $name = Str::slug(Str::ascii($part::key($document)), '-');
                $path = "{$part::folder()}/{$number}{$name}.json";
                for ($nth = 2; isset($texts[$path]); $nth++) {
                    $path = "{$part::folder()}/{$number}{$name}-{$nth}.json";
                }
                $texts[$path] = SetupFile::write($part, $document);
            }
        }

        return $texts;
    }

    /**
     * What bringing it in would change, found out by doing so and taking it back.
     *
     * @param  array<string, string>  $texts
     *
     * @throws DomainError when it is no setup, or one of a later version
     */
    public function plan(array $texts, int $by, bool $despite = false): SetupPlan
    {
        [$documents, $problems] = $this->read($texts);
        [$changes, $same, $besides] = $problems === [] ? $this->differences($documents) : [[], 0, []];
        array_push($besides, ...$this->otherZone($texts));
        if ($problems === []) {
            $this->db->beginTransaction();
            try {
                $problems = $this->bring(self::changed($documents, $changes), new Bringing($by, false, $despite));
            } finally {
                $this->db->rollBack();
                $this->forget();
            }
        }

        return new SetupPlan($changes, $problems, $same, $besides);
    }

    /**
     * @param  array<string, string>  $texts
     *
     * @throws DomainError with every problem; then nothing has changed
     */
    public function apply(array $texts, int $by, bool $despite = false): SetupPlan
    {
        $plan = $this->plan($texts, $by, $despite);
        self::mustBeSound($plan->problems);
        $documents = self::changed($this->read($texts)[0], $plan->changes);
        $back = $this->app->make(TypePart::class)->prepare(array_values($documents[TypePart::class] ?? []));
        try {
            $this->db->transaction(function () use ($documents, $by, $despite, $plan): void {
                self::mustBeSound($this->bring($documents, new Bringing($by, true, $despite)));
                if ($plan->changes !== []) {
                    $this->entries->write('setup_applied', $by, ['files' => array_map(
                        static fn (SetupChange $change): string => $change->path, $plan->changes,
                    )]);
                }
            });
        } catch (\Throwable $thrown) {
            $back();
            throw $thrown;
        } finally {
            $this->forget();
        }

        return $plan;
    }

    /**
     * @param  array<string, string>  $texts
     * @return array{array<class-string<SetupPart>, array<string, array<string, mixed>>>,
         list<array{at: string, code: string, message: string}>}
     */
    private function read(array $texts): array
    {
        $head = json_decode($texts['setup.json'] ?? '', true);
        $format = is_array($head) ? $head['format'] ?? null : null;
        if (! is_int($format) || $format > self::FORMAT) {
            throw new DomainError('wrong_format', is_int($format)
                ? Words::say('This setup was written by a later version, and cannot be read here. Bring this application up to '
                    .'date first.') : Words::say('setup.json does not say of which format the setup is.'), RefusedFor::Invalid, [
                        ['at' => 'setup.json#/format', 'code' => 'wrong_format', 'message' => Words::say(
                            'Formats up to {format} can be read.',
                            format: self::FORMAT,
                        )],
                    ]);
        }
        $reader = new SetupFile;
        [$documents, $problems, $known] = [[], [], []];
        foreach ($texts as $path => $text) {
            foreach (SetupParts::all() as $part) {
                if (! str_starts_with($path, "{$part::folder()}/")) {
                    continue;
                }
                [$document, $found] = $reader->read($part, $path, $text);
                array_push($problems, ...$found);
                if ($found === []) {
                    $key = "{$part::folder()} ".$part::key($document);
                    if (isset($known[$key])) {
                        $problems[] = ['at' => $path, 'code' => 'twice', 'message' => Words::say(
                            '{known} is about the same.',
                            known: $known[$key],
                        )];
                    }
                    $known[$key] = $path;
                    $documents[$part][$path] = $document;
                }
            }
        }

        return [$documents, $problems];
    }

    /**
     * @param  array<class-string<SetupPart>, array<string, array<string, mixed>>>  $documents
     * @return array{list<SetupChange>, int, list<string>}
     */
    private function differences(array $documents): array
    {
        [$changes, $same, $besides] = [[], 0, []];
        foreach (SetupParts::all() as $class) {
            $part = $this->app->make($class);
            $here = [];
            foreach ($part->documents() as $document) {
                $here[$class::key($document)] = $document;
            }
            foreach ($documents[$class] ?? [] as $path => $document) {
                $key = $class::key($document);
                $kept = $here[$key] ?? null;
                unset($here[$key]);
                $said = $part->difference($kept, $document);
                // The order of fields says something, that of members does not.
                if ($kept !== null && $said === [] && NamedPart::same($kept, $document)) {
                    $same++;
                } else {
                    $changes[] = new SetupChange($path, $key, $kept === null, $said);
                }
            }
            array_push($besides, ...array_map(static fn (string $key): string => ucfirst($class::folder()).": {$key}", array_keys($here)));
        }

        return [$changes, $same, $besides];
    }

    /**
     * What says what is so already is left alone.
     *
     * @param  array<class-string<SetupPart>, array<string, array<string, mixed>>>  $documents
     * @param  list<SetupChange>  $changes
     * @return array<class-string<SetupPart>, array<string, array<string, mixed>>>
     */
    private static function changed(array $documents, array $changes): array
    {
        $paths = array_fill_keys(array_map(static fn (SetupChange $change): string => $change->path, $changes), true);

        return array_map(static fn (array $of): array => array_intersect_key($of, $paths), $documents);
    }

    /**
     * @param  array<class-string<SetupPart>, array<string, array<string, mixed>>>  $documents
     * @return list<array{at: string, code: string, message: string}>
     */
    private function bring(array $documents, Bringing $how): array
    {
        $problems = [];
        foreach (SetupParts::all() as $class) {
            // Each part reads what the ones before it have brought.
            $part = $this->app->make($class);
            foreach ($documents[$class] ?? [] as $path => $document) {
                array_push($problems, ...self::tried($path, static fn () => $part->bring($document, $how)));
            }
            foreach ($part instanceof TypePart ? $documents[$class] ?? [] : [] as $path => $document) {
                array_push($problems, ...self::tried($path, static fn () => $part->settle($document)));
            }
        }

        return $problems;
    }

    /** @return list<array{at: string, code: string, message: string}> what was refused */
    private static function tried(string $path, \Closure $work): array
    {
        try {
            $work();

            return [];
        } catch (DomainError $refused) {
            $problems = $refused->problems === [] ? [['at' => '', 'code' => $refused->reason, 'message' => $refused->getMessage()]]
                : $refused->problems;

            return array_map(static fn (array $problem): array => [
                'at' => $problem['at'] === '' ? $path : "{$path}#{$problem['at']}", 'code' => $problem['code'],
                'message' => $problem['message'],
            ], $problems);
        }
    }

    /**
     * @param  array<string, string>  $texts
     * @return list<string>
     */
    private function otherZone(array $texts): array
    {
        $here = $this->app->make(Company::class)->zone()->getName();
        $there = ((array) json_decode($texts['setup.json'], true))['timeZone'] ?? $here;

        return $there === $here ? [] : [Words::say(
            'The time zone: {here} here, {there} there. Proofs that name hours may come to others.',
            here: $here,
            there: $there,
        )];
    }

    /** What was read while it was tried is not so any more. */
    private function forget(): void
    {
        $this->schemas->forget();
    }

    /** @param  list<array{at: string, code: string, message: string}>  $problems */
    private static function mustBeSound(array $problems): void
    {
        if ($problems !== []) {
            throw new DomainError('unsound_setup', Words::counted(
                count($problems),
                'The setup has one problem. Nothing was changed.|The setup has {count} problems. Nothing was changed.',
            ), RefusedFor::Invalid, $problems);
        }
    }
}
