<?php

declare(strict_types=1);

namespace Tests\App;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Rules as text through the API: every rule of the demo company comes back from its text, and a text travels to another company. */
final class TextTest extends AppTestCase
{
    public function test_every_rule_of_the_demo_company_reads_as_text_and_back(): void
    {
        $this->app->make(\App\Demo\Demo::class)->loadKept();
        $count = 0;
        foreach (glob(database_path('demo/rules/*.json')) ?: [] as $path) {
            $file = $this->demoFile(basename($path, '.json'));
            $text = $this->as('ines.okafor', 'POST', 'text/print', ['file' => $file])->assertOk()->json('text');
            $read = $this->as('ines.okafor', 'POST', 'text/rule', ['text' => $text])->assertOk()->json();
            self::assertSame([], $read['misread'], "{$path}: {$text}");
            self::assertSame($this->aloud($file), $this->aloud($read['file']), $text);
            // All of it has words, unless it is not finished.
            if ($this->as('ines.okafor', 'POST', 'rules/read', ['file' => $file])->json('problems') === []) {
                self::assertSame(0, substr_count($text, '⟦'), "{$path}: {$text}");
            }
            $count++;
        }
        self::assertGreaterThan(25, $count);
    }

    public function test_a_text_becomes_a_rule_that_fires(): void
    {
        $text = "Rule \"Typed\"\nWhen a Ticket is created\nOnly if Priority is Urgent and Customer › Plan is one of Basic or Full "
            ."care\nFires every time\nSet Review to Needed\nGive the owner’s manager a high-priority task \"Look at {number}\" due 2 "
                ."working days later\n";
        $file = $this->as('ines.okafor', 'POST', 'text/rule', ['text' => $text])->assertOk()->json('file');
        $this->inForce($file);
        $ticket = $this->ticket([
            'priority' => 'urgent', 'customer' => $this->customer('One', 'basic')['id'], 'owner' => $this->person('bram.castellan')->id,
        ]);
        self::assertSame('needed', $ticket['record']['values']['review']);
        self::assertStringStartsWith('Look at T-', (string) DB::table('tasks')->value('title'));
        self::assertSame('high', DB::table('tasks')->value('priority'));
    }

    public function test_a_line_is_completed_from_what_the_company_has(): void
    {
        $expected = fn (string $typed): array => $this->as(
            'ines.okafor',
            'POST',
            'text/line',
            ['text' => $typed, 'on' => 'ticket'],
        )->assertOk()->json('misread.0.expected');
        self::assertContains('Priority', $expected('set Prio'));
        self::assertContains('Waiting on customer', $expected('set Status to Wai'));
        self::assertContains('Ines Okafor', $expected('remind In'));
        $this->as('ines.okafor', 'POST', 'text/line', ['text' => 'x', 'on' => 'boat'])->assertNotFound();
        $this->as('odile.march', 'POST', 'text/line', ['text' => 'x', 'on' => 'ticket'])->assertForbidden();
    }

    /** @param  array<string, mixed>  $file */
    private function aloud(array $file): string
    {
        return $this->as('ines.okafor', 'POST', 'rules/read', ['file' => $file])->assertOk()->json('aloud');
    }
}
