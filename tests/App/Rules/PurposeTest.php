<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use Tests\App\Support\AppTestCase;

/** What a rule is for, in somebody's own words: kept with it, shown in the list, and carried by its text, its file and a copy. */
final class PurposeTest extends AppTestCase
{
    private const PURPOSE = 'So that “urgent” means it, even at night';

    public function test_it_goes_wherever_the_rule_goes(): void
    {
        $file = $this->demoFile('020-full-care-first');
        unset($file['purpose']);
        $said = ['purpose' => self::PURPOSE] + $file;
        $id = $this->inForce($said);
        $listed = array_column($this->as('ines.okafor', 'GET', 'rules')->assertOk()->json(), 'purpose', 'id');
        self::assertSame(self::PURPOSE, $listed[$id]);

        $text = $this->as('ines.okafor', 'POST', 'text/print', ['file' => $said])->assertOk()->json('text');
        self::assertStringContainsString("\nPurpose “So that", $text);
        $read = $this->as('ines.okafor', 'POST', 'text/rule', ['text' => $text])->assertOk()->json('file');
        self::assertSame(self::PURPOSE, $read['purpose']);
        self::assertSame(self::PURPOSE, $this->as('ines.okafor', 'GET', "rules/{$id}/file")->assertOk()->json('purpose'));
        $copy = $this->as('ines.okafor', 'POST', "rules/{$id}/copy", ['on' => 'ticket'])->assertCreated()->json('id');
        self::assertSame(self::PURPOSE, $this->as('ines.okafor', 'GET', "rules/{$copy}/file")->json('purpose'));
    }

    public function test_it_changes_nothing_of_what_the_rule_does_and_has_its_length(): void
    {
        $file = $this->demoFile('020-full-care-first');
        foreach ([
            [str_repeat('ä', 300), null], [str_repeat('ä', 301), 'too_long'], [['a'], 'wrong_type'], ['', null],
        ] as [$purpose, $code]) {
            $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => ['purpose' => $purpose] + $file])->json();
            $problems = array_column($rule['reading']['problems'], 'code', 'at');
            self::assertSame($code, $problems['/purpose'] ?? null, json_encode($purpose).json_encode($problems));
        }
    }
}
