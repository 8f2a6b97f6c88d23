<script lang="ts">
    import type { Resources } from '../api/client';
    import type { Word } from './words';

    type Props = {
        words: Word[];
        problems?: Resources['ProblemResource'][];
        /** Places with remarks. */
        remarked?: string[];
        /** Called with the word and its button; left out, the words are only read. */
        onedit?: (word: Word, button: HTMLElement) => void;
        editing?: string | null;
    };
    let { words, problems = [], remarked = [], onedit, editing = null }: Props = $props();

    const wrong = (word: Word) => word.at !== null && problems.some((problem) => problem.at === word.at);
    // A remark about a condition or a line is about all of its words; one about a whole list of them is about none.
    const hasRemark = (word: Word) => remarked.some((at) => word.at === at || (/\/\d+$/.test(at) && word.at?.startsWith(`${at}/`)));
    // What could be added is only shown to whoever writes; empty words only carry offers.
    const said = $derived([
        ...words.filter((word) => word.text !== '' && word.role !== 'more'),
        ...(onedit ? words.filter((word) => word.text !== '' && word.role === 'more') : []),
    ]);
    const tight = (index: number) => /^[,;:.’]/.test(said[index]?.text ?? '');
</script>

{#each said as word, index (index)}{#if index > 0 && !tight(index)}{' '}{/if}{#if onedit && word.editor}<button
            type="button"
            class="word {word.role}"
            class:wrong={wrong(word) && word.role !== 'missing'}
            class:remarked={hasRemark(word) && word.role !== 'more'}
            class:editing={editing !== null && editing === `${word.at}|${word.editor.sort}`}
            data-word="{word.at}|{word.editor.sort}"
            aria-haspopup="dialog"
            onclick={(event) => onedit(word, event.currentTarget)}>{word.text}</button
        >{:else}<span class="word {word.role}" class:wrong={wrong(word)}>{word.text}</span>{/if}{/each}
