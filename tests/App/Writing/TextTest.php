<?php

declare(strict_types=1);

namespace Tests\App\Writing;

use App\Demo\Demo;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Rules as text through the API: every rule of the demo company comes back from its text, and a text travels to another company. */
final class TextTest extends AppTestCase
{
    public function test_every_rule_of_the_demo_company_reads_as_text_and_back(): void
    {
        $this->app->make(Demo::class)->loadKept();
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
                self::assertDoesNotMatchRegularExpression('/<\/?\w+[ >]/', $text, 'no letter stands as markup');
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

    public function test_a_letter_is_typed_in_light_marks_and_delivered_as_it_was_meant(): void
    {
        $line = $this->as('ines.okafor', 'POST', 'text/line', [
            'text' => 'email the owner about "News" saying "Look at **{number}**:\n\n- {subject}\n- *soon*"', 'on' => 'ticket',
        ])->assertOk()->json();
        self::assertSame([], $line['misread']);
        $this->inForce(['name' => 'Typed', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => []], 'lines' => [$line['file']]]);
        $this->ticket(['subject' => 'Ficus', 'owner' => $this->person('bram.castellan')->id]);
        $message = (array) DB::table('messages')->first();
        self::assertMatchesRegularExpression(
            '#<p>Look at <strong>T-\d+</strong>:</p><ul><li><p>Ficus</p></li>#',
            (string) $message['html'],
        );
        self::assertStringContainsString('- Ficus', (string) $message['text']);
    }

    public function test_a_whole_rule_is_said_in_a_sentence_and_what_is_ambiguous_is_asked(): void
    {
        $said = $this->as('ines.okafor', 'POST', 'text/sentence', [
            'text' => 'When a quote is won, give whoever created it a task "Send a welcome pack" due in two working days, only once',
        ])->assertOk()->json();
        self::assertSame(['quote', 'once_per_record', 'creator'], [
            $said['file']['on'], $said['file']['fires']['kind'], $said['file']['lines'][0]['to']['kind'],
        ]);
        $asked = $this->as('ines.okafor', 'POST', 'text/line', ['text' => 'remind the owner "Look" after 3 days at 5', 'on' => 'ticket'])
            ->assertOk()->json();
        self::assertNull($asked['file']);
        self::assertSame(
            ['After 3 days at 05:00: Remind the owner “Look”', 'After 3 days at 17:00: Remind the owner “Look”'],
            array_column($asked['meanings'], 'text'),
        );
        $near = $this->as('ines.okafor', 'POST', 'text/line', ['text' => 'set waitng since to now', 'on' => 'ticket'])->assertOk()->json();
        self::assertSame('Waiting since', $near['misread'][0]['meant']);
    }
}
