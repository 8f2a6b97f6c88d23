<?php

declare(strict_types=1);

namespace VividLedger\Template;

use Closure;

/**
 * Formatted text as people type it where there are no buttons: **bold**, *slanted*, __underlined__, [a link](https://…), lists with
 * "- " or "1. ", headings with "## ", quotations with "> ", and {fields}. A backslash takes a sign as it stands.
 */
final class LightText
{
    private const MARKS = ['strong' => '**', 'em' => '*', 'u' => '__'];

    private const HEADS = ['h2' => '## ', 'h3' => '### ', 'blockquote' => '> '];

    private const BLOCKS = ['p', 'h2', 'h3', 'blockquote', 'ul', 'ol', 'li'];

    /** A sign behind a backslash is itself, so no mark begins or ends there. */
    private const INLINE = '/\\\\(.)|\*\*((?:\\\\.|(?!\*\*)[^\\\\])+)\*\*|\*((?:\\\\.|[^*\\\\])+)\*|__((?:\\\\.|(?!__)[^\\\\])+)__'
        .'|\[((?:\\\\.|[^\]\\\\])+)\]\((\S+?)\)|\{([a-z][a-z0-9_.]*)\}/su';

    /** @return ?string null for what cannot be written so, such as a list within a list */
    public static function of(string $html): ?string
    {
        $blocks = [''];
        $list = null;
        $link = null;
        $isMerge = false;
        foreach (preg_split('/(<[^>]+>)/', RichText::clean($html), -1, PREG_SPLIT_DELIM_CAPTURE | PREG_SPLIT_NO_EMPTY) ?: [] as $token) {
            $last = count($blocks) - 1;
            if (preg_match('/^<(\/?)(\w+)([^>]*)>$/', $token, $tag) !== 1) {
                $blocks[$last] .= $isMerge ? '' : self::escaped(html_entity_decode($token, ENT_QUOTES | ENT_HTML5, 'UTF-8'));

                continue;
            }
            [, $closes, $name, $more] = $tag;
            if ($closes === '' && ($name === 'ul' || $name === 'ol')) {
                if ($list !== null) {
                    return null;
                }
                $list = $name;
                $blocks[] = '';
            } elseif ($name === $list) {
                $list = null;
                $blocks[] = '';
            } elseif ($name === 'li') {
                $blocks[$last] .= $closes !== '' ? '' : ($blocks[$last] === '' ? '' : "\n").($list === 'ol' ? '1. ' : '- ');
            } elseif (in_array($name, self::BLOCKS, true)) {
                if ($list === null && ($blocks[$last] !== '' || $closes !== '') && ! isset(array_flip(self::HEADS)[$blocks[$last]])) {
                    $blocks[] = '';
                }
                $blocks[count($blocks) - 1] .= $closes === '' ? self::HEADS[$name] ?? '' : '';
            } else {
                $blocks[$last] .= match ($name) {
                    'br' => $list === null ? "\n" : "\n  ",
                    'a' => $closes === '' ? '[' : "]({$link})",
                    'span' => $closes === '' && preg_match('/data-merge="([a-z][a-z0-9_.]*)"/', $more, $path) === 1 ? "{{$path[1]}}" : '',
                    default => self::MARKS[$name] ?? '',
                };
                $isMerge = $name === 'span' && $closes === '';
                $link = $name === 'a' && preg_match('/href="([^"]*)"/', $more, $href) === 1 ? html_entity_decode($href[1]) : $link;
            }
        }

        return trim(implode("\n\n", array_filter(array_map(trim(...), $blocks), static fn (string $block): bool => $block !== '')));
    }

    /** @param  Closure(string): string  $label  what a field is called, by its path */
    public static function html(string $text, Closure $label): string
    {
        $html = '';
        foreach (preg_split('/\n{2,}/', trim($text)) ?: [] as $block) {
            $html .= self::block($block, $label);
        }

        return $html;
    }

    /** A formatted text in one certain spelling, by which two that read alike are told to be the same. */
    public static function plain(string $html): string
    {
        $light = self::of($html);

        return $light === null ? $html : self::html($light, static fn (string $path): string => $path);
    }

    /** @param  Closure(string): string  $label */
    private static function block(string $block, Closure $label): string
    {
        // What goes on in a list stands two spaces in.
        $lines = preg_split('/\n(?!  )/', $block) ?: [];
        foreach (['ul' => '/^- /', 'ol' => '/^\d+\. /'] as $list => $bullet) {
            if (preg_grep($bullet, $lines) === $lines) {
                return "<{$list}>".implode('', array_map(
                    static fn (string $line): string => '<li><p>'.self::inline(
                        str_replace("\n  ", "\n", (string) preg_replace($bullet, '', $line)),
                        $label,
                    ).'</p></li>',
                    $lines,
                ))."</{$list}>";
            }
        }
        foreach (self::HEADS as $name => $mark) {
            if (str_starts_with($block, $mark)) {
                $inner = self::inline(substr($block, strlen($mark)), $label);

                return $name === 'blockquote' ? "<blockquote><p>{$inner}</p></blockquote>" : "<{$name}>{$inner}</{$name}>";
            }
        }

        return '<p>'.self::inline($block, $label).'</p>';
    }

    /** @param  Closure(string): string  $label */
    private static function inline(string $text, Closure $label): string
    {
        $html = '';
        $at = 0;
        preg_match_all(self::INLINE, $text, $found, PREG_SET_ORDER | PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL);
        foreach ($found as $match) {
            $html .= self::plainHtml(substr($text, $at, $match[0][1] - $at));
            $at = $match[0][1] + strlen((string) $match[0][0]);
            [, $escaped, $bold, $slanted, $lined, $linked, $address, $path] = array_pad(array_column($match, 0), 8, null);
            $html .= match (true) {
                $escaped !== null => self::plainHtml($escaped),
                $bold !== null => '<strong>'.self::inline($bold, $label).'</strong>',
                $slanted !== null => '<em>'.self::inline($slanted, $label).'</em>',
                $lined !== null => '<u>'.self::inline($lined, $label).'</u>',
                $linked !== null => '<a href="'.htmlspecialchars((string) $address).'">'.self::inline($linked, $label).'</a>',
                default => "<span data-merge=\"{$path}\">".htmlspecialchars($label((string) $path)).'</span>',
            };
        }

        return $html.self::plainHtml(substr($text, $at));
    }

    private static function plainHtml(string $text): string
    {
        return str_replace("\n", '<br />', htmlspecialchars($text, ENT_NOQUOTES));
    }

    /** Signs that would mean something else. */
    private static function escaped(string $text): string
    {
        return (string) preg_replace('/[*_\[\]{\\\\]|^(?:- |> |#|\d+\. )/mu', '\\\\$0', (string) preg_replace('/\s+/u', ' ', $text));
    }
}
