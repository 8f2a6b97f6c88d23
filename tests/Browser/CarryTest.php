<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Tests\Browser\Support\BrowserTestCase;

/** A setup is taken out, changed, brought in, and refused where something of it does not read. */
final class CarryTest extends BrowserTestCase
{
    public function test_from_an_archive_to_a_letter_that_says_something_else(): void
    {
        $mark = 'x'.bin2hex(random_bytes(3));
        $this->signIn('ines.okafor');
        $letter = $this->api('POST', 'letters', [
            'recordType' => 'ticket', 'name' => "Carried {$mark}", 'subject' => 'As it was', 'body' => '<p>Hello</p>',
        ]);
        $this->open('/setup/carry');
        $archive = $this->archive();
        $this->chooseArchive($archive, static fn (string $text): string => $text);
        $this->see('h2', 'Everything is so already');
        $this->chooseArchive($archive, static fn (string $text): string => str_contains($text, $mark)
            ? str_replace('"As it was"', '"As it is now"', $text) : $text);
        $this->see('h2', '1 file would change something');
        $this->see('.scroll', 'Subject: “As it was” becomes “As it is now”.');
        $this->press('Import');
        $this->see('h2', 'It is brought in');
        self::assertSame('As it is now', array_column($this->api('GET', 'letters'), 'subject', 'name')["Carried {$mark}"]);
        $this->chooseArchive($archive, static fn (string $text): string => str_contains($text, $mark)
            ? str_replace('"As it was"', '"{nothing_like_it}"', $text) : $text);
        $this->see('[role=alert]', 'letters/carried-');
        self::assertFalse($this->browser->findElement(WebDriverBy::cssSelector('.btn.go'))->isEnabled());
        $this->api('DELETE', "letters/{$letter['id']}");
        unlink($archive);
    }

    /** What the link gives, as a file. */
    private function archive(): string
    {
        $this->see('a[href="/api/setup"]');
        $this->browser->manage()->timeouts()->setScriptTimeout(30);
        $bytes = $this->browser
            ->executeAsyncScript('const done = arguments[0]; fetch("/api/setup").then((answer) => answer.blob()).then((blob) => {
            const reader = new FileReader(); reader.onload = () => done(reader.result.split(",")[1]); reader.readAsDataURL(blob); });');
        $file = (string) tempnam(sys_get_temp_dir(), 'setup').'.zip';
        file_put_contents($file, base64_decode((string) $bytes));

        return $file;
    }

    /** @param  \Closure(string): string  $change of the text of each file */
    private function chooseArchive(string $archive, \Closure $change): void
    {
        $changed = str_replace('.zip', '-'.bin2hex(random_bytes(2)).'.zip', $archive);
        copy($archive, $changed);
        $zip = new \ZipArchive;
        $zip->open($changed);
        for ($index = 0; $index < $zip->numFiles; $index++) {
            $name = (string) $zip->getNameIndex($index);
            $zip->addFromString($name, $change((string) $zip->getFromIndex($index)));
        }
        $zip->close();
        $this->browser->findElement(WebDriverBy::cssSelector('input[type=file]'))->sendKeys($changed);
        $this->see('.mini', basename($changed));
    }
}
