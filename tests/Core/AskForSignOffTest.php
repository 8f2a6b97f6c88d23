<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Rehearse\WhatIf\SignOffAnswered;
use VividLedger\SignOff\Answer;
use VividLedger\Text\RuleText;

/** A line asks for a sign-off, and others follow each way in which it can end; rehearsed from the ask to the end. */
final class AskForSignOffTest extends TestCase
{
    private const TEXT = "Rule “Discount”\nWhen a Ticket is created\nFires once per ticket\n"
        ."Ask for a sign-off by the owner’s manager, within 3 days, and then ask the next person up, known as “asked”\n"
        ."Once “asked” is agreed: Set Status to Closed\n"
        ."1 day after “asked” is declined: Remind the owner “No”\n"
        ."Once “asked” is timed out: Set Priority to Urgent\n";

    public function test_it_is_printed_and_typed(): void
    {
        $world = new World;
        $text = new RuleText(World::schema(), $world, $world->zone());
        $read = $text->parse(self::TEXT);
        self::assertSame([], $read->misread);
        self::assertSame(self::TEXT, $text->print($read->file ?? []));
        self::assertSame([], $world->read($read->file ?? [])->problems);
        self::assertStringContainsString(
            'ask for a sign-off by the owner’s manager, within 3 days, and then ask the next person up',
            $world->read($read->file ?? [])->aloud(),
        );
    }

    public function test_it_is_asked_for_as_people_say_it(): void
    {
        $world = new World;
        $text = new RuleText(World::schema(), $world, $world->zone());
        $ticket = World::schema()->types['ticket'];
        foreach ([
            'Ask for a sign-off by the owner’s manager' => [
                'get approval from the owner\'s boss', 'ask the owner\'s manager for approval', 'the owner\'s manager must approve',
                'have the owner\'s manager sign off', 'needs the ok of the owner\'s manager', 'submit it to the owner\'s boss for sign-off',
            ],
            'Ask for a sign-off by the owner’s manager; then Edda Marlow' => [
                'get approval from the owner\'s manager, then from Edda', 'ask the owner\'s boss and afterwards Edda for approval',
            ],
            'Ask for a sign-off by Tomas Weld and Edda Marlow, 1 of them being enough' => [
                'get approval from Tomas and Edda, either is enough', 'ask for a sign-off by Tomas and Edda, one is enough',
            ],
        ] as $printed => $said) {
            $file = $text->parseLine($printed, $ticket)->file;
            self::assertNotNull($file, $printed);
            foreach ($said as $words) {
                self::assertEquals($file, $text->parseLine($words, $ticket)->file, $words);
            }
        }
        self::assertNull($text->parseLine('get approval from somebody in Office', $ticket)->file, 'who that is, is not said');
    }

    public function test_a_yes_goes_on_and_strikes_out_what_waited_for_a_no(): void
    {
        self::assertSame([
            '24 Nov 2026 09:40 · Discount: sign-off asked of Tomas Weld',
            '25 Nov 2026 11:00 · Discount: Tomas Weld agreed: “Fine”',
            '25 Nov 2026 11:00 · Discount: Step 1 is agreed',
            '25 Nov 2026 11:00 · Discount: the sign-off is agreed',
            '25 Nov 2026 11:00 · Discount: signed off “agreed”',
            '25 Nov 2026 11:00 · Discount: moved ‘Set Status to Closed’, the sign-off has ended',
            '25 Nov 2026 11:00 · Discount: struck out ‘Remind the owner “No”’, ‘Set Priority to Urgent’, the sign-off has ended',
            '25 Nov 2026 11:00 · Discount: Status set to Closed',
        ], $this->story([$this->answered(Answer::Yes, 'Fine')]));
    }

    public function test_a_no_says_why_and_what_waited_for_it_comes_in_its_time(): void
    {
        $story = $this->story([$this->answered(Answer::No, 'Too dear')]);
        self::assertContains('25 Nov 2026 11:00 · Discount: Tomas Weld declined: “Too dear”', $story);
        self::assertContains('25 Nov 2026 11:00 · Discount: the sign-off is declined', $story);
        self::assertSame('26 Nov 2026 11:00 · Discount: message “No” to Ines Okafor', $story[count($story) - 1]);
    }

    public function test_nobody_answers_so_it_goes_up_and_times_out(): void
    {
        $story = $this->story([]);
        self::assertContains('27 Nov 2026 09:40 · Discount: Edda Marlow is asked instead of Tomas Weld', $story);
        self::assertContains('30 Nov 2026 09:40 · Discount: the sign-off is timed out', $story);
        self::assertSame('30 Nov 2026 09:40 · Discount: Priority set to Urgent', $story[count($story) - 1]);
    }

    private function answered(Answer $answer, string $comment): SignOffAnswered
    {
        return new SignOffAnswered(new \DateTimeImmutable('2026-11-25T10:00:00Z'), 1, $answer, $comment);
    }

    /**
     * @param  list<SignOffAnswered>  $whatIfs
     * @return list<string> what the rehearsal writes down, after the change that starts it
     */
    private function story(array $whatIfs): array
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket();
        $file = (new RuleText(World::schema(), $world, $world->zone()))->parse(self::TEXT)->file ?? [];
        $played = $world->rehearse($world->rule($file), $whatIfs);

        return array_slice($world->outline($played), 1);
    }
}
