<?php

declare(strict_types=1);

namespace Tests\App;

use App\Store\Refused;
use App\Store\RefusedFor;
use App\Store\RuleFile;
use App\Store\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\Core\Support\Stories;

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
            } catch (Refused $refusal) {
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
