<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Rules\RuleFile;
use App\Store\Rules\RuleSchema;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\Core\Support\Stories;
use VividLedger\Rule\Reading\RuleReader;

/** Rule files at random: every sound one goes through the published schema unchanged, every spoiled one is refused by line. */
final class RuleFilePropertyTest extends AppTestCase
{
    public function test_a_sound_rule_comes_back_as_it_went_out(): void
    {
        $files = $this->app->make(RuleFile::class);
        for ($seed = 1; $seed <= 150; $seed++) {
            $stories = $this->stories($seed);
            $file = $stories->rule('A rule');
            $file = $seed % 2 === 0 ? $stories->inTime($file) : $file;
            self::assertSame($file, $files->read($files->write($file)), "seed {$seed}");
        }
    }

    public function test_the_published_schema_is_made_of_the_kinds(): void
    {
        self::assertSame(
            RuleSchema::made(),
            file_get_contents(base_path(RuleSchema::PATH)),
            'php artisan ledger:rule-schema writes it anew',
        );
    }

    /** What the schema lets in is read as well, and what is not known to the reading is not known to the schema. */
    public function test_the_schema_is_as_strict_as_the_reading(): void
    {
        $reader = $this->app->make(RuleReader::class);
        $strict = 0;
        for ($seed = 1; $seed <= 120; $seed++) {
            $stories = $this->stories($seed);
            $file = ['format' => RuleReader::FORMAT] + $stories->rule('A rule');
            $spoiled = $this->withStranger($file, $stories->random->getInt(0, 9));
            $known = RuleSchema::problems(json_decode((string) json_encode($spoiled))) === [];
            $read = array_filter($reader->strictly($spoiled)->problems, static fn ($problem): bool => $problem->code === 'unknown_key');
            self::assertSame($read === [], $known, "seed {$seed}: ".json_encode($spoiled));
            $strict += $known ? 0 : 1;
        }
        self::assertGreaterThan(60, $strict);
    }

    /**
     * A file with a member that nobody knows, in one of its objects.
     *
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    private function withStranger(array $file, int $nth): array
    {
        $places = [];
        $find = function (array $node, array $at) use (&$find, &$places): void {
            if (! array_is_list($node)) {
                $places[] = $at;
            }
            foreach ($node as $key => $value) {
                if (is_array($value)) {
                    $find($value, [...$at, $key]);
                }
            }
        };
        $find($file, []);
        $here = &$file;
        foreach ($places[$nth % count($places)] as $key) {
            $here = &$here[$key];
        }
        $here['stranger'] = 1;

        return $file;
    }

    public function test_a_spoiled_file_is_refused_at_a_line_that_exists(): void
    {
        $files = $this->app->make(RuleFile::class);
        $refused = 0;
        for ($seed = 1; $seed <= 300; $seed++) {
            $stories = $this->stories($seed);
            $text = $files->write($stories->rule('A rule'));
            $at = $stories->random->getInt(0, strlen($text) - 1);
            $spoiled = substr($text, 0, $at).$stories->one([
                '', '"', '{', '}', ',', ':', 'x', '[', "\n", '0',
            ]).substr($text, $at + $stories->random->getInt(0, 3));
            try {
                $files->read($spoiled);
            } catch (DomainError $refusal) {
                $refused++;
                self::assertSame(['malformed_rule', RefusedFor::Invalid], [$refusal->reason, $refusal->for]);
                self::assertNotSame([], $refusal->problems);
                foreach ($refusal->problems as $problem) {
                    self::assertGreaterThanOrEqual(1, $problem['line']);
                    self::assertLessThanOrEqual(substr_count($spoiled, "\n") + 1, $problem['line']);
                    self::assertNotSame('', $problem['message']);
                }
            }
        }
        self::assertGreaterThan(150, $refused);
        self::assertSame(0, DB::table('rules')->count());
    }

    private function stories(int $seed): Stories
    {
        static $customer = null;
        $customer = DB::table('records_customer')->value('id') ?? $this->customer()['id'];
        $contact = DB::table('records_contact')->value('id') ?? $this->created(
            'contact',
            ['name' => 'Marit Solheim', 'customer' => $customer],
        )['record']['id'];

        return new Stories(
            $seed,
            $this->app->make(SchemaStore::class)->schema(),
            ['ines.okafor', 'tomas.weld'],
            ['customer' => [$customer], 'contact' => [$contact]],
        );
    }
}
