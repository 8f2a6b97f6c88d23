<?php

declare(strict_types=1);

namespace VividLedger\Template;

use Symfony\Component\HtmlSanitizer\HtmlSanitizer;
use Symfony\Component\HtmlSanitizer\HtmlSanitizerConfig;

/**
 * Formatted text with merge fields, kept as a little HTML in which a merge field is <span data-merge="customer.name">.
 * What else comes in is dropped, so it is inert wherever it is shown.
 */
final class RichText
{
    private const MERGE = '/<span data-merge="([a-z][a-z0-9_.]*)">[^<]*<\/span>/';

    private const ADDRESS = '/href="([^"]*)"/';

    private const NAMED = '/\{([a-z][a-z0-9_.]*)\}/';

    private static ?HtmlSanitizer $sanitizer = null;

    private static ?HtmlSanitizer $mail = null;

    public static function clean(string $html): string
    {
        self::$sanitizer ??= new HtmlSanitizer(self::allowed());

        return self::$sanitizer->sanitize($html);
    }

    /** The same for a whole mail, which may have tables in it, and links to records. */
    public static function mail(string $html): string
    {
        self::$mail ??= new HtmlSanitizer(array_reduce(
            [
                'table', 'thead', 'tbody', 'tr', 'th', 'td',
            ], static fn (HtmlSanitizerConfig $config, string $element): HtmlSanitizerConfig => $config->allowElement($element),
            self::allowed()->allowRelativeLinks(),
        ));

        return self::$mail->sanitize($html);
    }

    private static function allowed(): HtmlSanitizerConfig
    {
        return (new HtmlSanitizerConfig)
            ->allowElement('p')->allowElement('br')->allowElement('strong')->allowElement('em')->allowElement('u')
            ->allowElement('ul')->allowElement('ol')->allowElement('li')->allowElement('h2')->allowElement('h3')->allowElement('blockquote')
            ->allowElement('a', ['href'])->allowLinkSchemes(['http', 'https', 'mailto'])
            ->allowElement('span', ['data-merge'])
            ->withMaxInputLength(500_000);
    }

    /** @return list<string> names of the merge fields, in order */
    public static function merges(string $clean): array
    {
        preg_match_all(self::MERGE, $clean, $found);

        return $found[1];
    }

    /** @return list<string> names of what is merged into the addresses of links: https://shop.example/{number} */
    public static function merged(string $clean): array
    {
        $names = [];
        preg_match_all(self::ADDRESS, $clean, $addresses);
        foreach ($addresses[1] as $address) {
            preg_match_all(self::NAMED, html_entity_decode($address), $found);
            array_push($names, ...$found[1]);
        }

        return $names;
    }

    /**
     * The clean text as a Twig template: what a person wrote cannot be Twig syntax, and each merge field is one call.
     *
     * @param  string  $clean  what clean() gave
     */
    public static function twig(string $clean): string
    {
        $pieces = preg_split(self::MERGE, $clean, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [];
        $twig = '';
        foreach ($pieces as $index => $piece) {
            $twig .= $index % 2 === 1 ? "{{ merge('{$piece}') }}" : self::linked($piece);
        }

        return $twig;
    }

    /** Text without merge fields as Twig, but for those in the addresses of its links. */
    private static function linked(string $piece): string
    {
        $twig = '';
        foreach (preg_split(self::ADDRESS, $piece, -1, PREG_SPLIT_DELIM_CAPTURE) ?: [] as $index => $part) {
            if ($index % 2 === 0) {
                $twig .= self::inert($part);

                continue;
            }
            $twig .= 'href="';
            foreach (preg_split(self::NAMED, html_entity_decode($part), -1, PREG_SPLIT_DELIM_CAPTURE) ?: [] as $nth => $text) {
                $twig .= $nth % 2 === 1 ? "{{ address('{$text}') }}" : self::inert(htmlspecialchars($text));
            }
            $twig .= '"';
        }

        return $twig;
    }

    private static function inert(string $html): string
    {
        return str_replace(['{', '}'], ['&#123;', '&#125;'], $html);
    }

    /** The same as plain text, for people and programs that show no HTML. */
    public static function plain(string $html): string
    {
        $text = (string) preg_replace('/[ \t\r\n]+/', ' ', $html);
        $text = (string) preg_replace('/<a href="([^"]+)">(.*?)<\/a>/i', '$2 ($1)', $text);
        $text = (string) preg_replace('/<\/t[dh]> *<\/tr>/i', '</tr>', $text);
        $text = (string) preg_replace(
            ['/<li>/i', '/<\/(p|h2|h3|blockquote|ul|ol|table)>/i', '/<(br ?\/?|\/li|\/tr)>/i', '/<\/t[dh]>/i'],
            ['- ', "\n\n", "\n", ' | '], $text,
        );
        $text = html_entity_decode(strip_tags($text), ENT_QUOTES | ENT_HTML5, 'UTF-8');

        return trim((string) preg_replace(['/[ \t]+$/m', '/^[ \t]+/m', '/\n{3,}/'], ['', '', "\n\n"], $text));
    }
}
