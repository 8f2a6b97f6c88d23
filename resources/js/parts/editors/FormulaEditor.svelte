<script lang="ts">
    import type { AnyDocument } from '../../state/document.svelte';
    import Choose from '../Choose.svelte';
    import { fieldOptions } from '../offers';
    import type { Editor, Word } from '../words';
    import Area from '../fields/Area.svelte';

    type Props = { document: AnyDocument; word: Word; editor: Editor; at: string; onclose: () => void };
    let { document: page, word, editor, at, onclose }: Props = $props();
    // svelte-ignore state_referenced_locally
    const formula = String(page.at(at) ?? '');
    const problem = $derived(page.reading.problems.find((candidate) => candidate.at === at && candidate.position !== null));
    // svelte-ignore state_referenced_locally
    let typed = $state(formula);

    function done() {
        void page.put(at, typed.trim());
        onclose();
    }
    let input = $state<HTMLTextAreaElement>();
    let merging = $state(false);
    const functions = [
        'today()',
        'days(from, to)',
        'year(date)',
        'month(date)',
        'round(number, 2)',
        'abs(number)',
        'least(a, b)',
        'most(a, b)',
        'length(text)',
        'empty(field)',
    ];

    function insert(text: string | undefined) {
        const from = input?.selectionStart ?? typed.length;
        typed = typed.slice(0, from) + (text ?? '') + typed.slice(input?.selectionEnd ?? from);
        merging = false;
        input?.focus();
    }

    function key(event: KeyboardEvent) {
        if (event.key !== 'Enter' || event.shiftKey) return;
        event.preventDefault();
        done();
    }
    // The caret goes to the character the formula cannot be read at.
    $effect(() => {
        if (input && problem?.position) input.setSelectionRange(problem.position - 1, problem.position);
    });
</script>

<form
    class="w-[440px]"
    onsubmit={(event) => {
        event.preventDefault();
        done();
    }}
>
    <label class="block px-4 pt-3 text-[12.5px] text-ink-2" for="formula">{editor.label}</label>
    <div class="px-4 pt-1 pb-2">
        <Area
            id="formula"
            class="figures h-20"
            spellcheck="false"
            bind:elementRef={input}
            bind:value={typed}
            onkeydown={key}
            placeholder="cost > hours * 40 and status != 'Closed'"
            autofocus
        />
        {#if problem}
            <p class="note-wrong" role="alert">{problem.message}</p>
            {#if problem.position && typed === formula}<pre class="figures text-[11.5px] text-madder">{typed}
{' '.repeat(problem.position - 1)}^</pre>{/if}
        {/if}
        <button type="button" class="btn quiet mt-1" onclick={() => (merging = !merging)}>+ a field</button>
        <p class="mini mt-1 leading-relaxed">
            + − * / · == != &lt; &gt; · and or not · a ? b : c<br />
            {#each functions as name, index (name)}{index ? ' · ' : ''}<button type="button" class="link" onclick={() => insert(name)}
                    >{name}</button
                >{/each}
        </p>
    </div>
    {#if merging}
        <div class="border-t border-ruled">
            <Choose title="Field" options={fieldOptions(word.on)} onchoose={([path]) => insert(path)} onclose={() => (merging = false)} />
        </div>
    {/if}
    <div class="keys"><span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto">Done</button></div>
</form>
