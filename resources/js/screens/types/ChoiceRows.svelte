<script lang="ts">
    import { Checkbox, Input } from 'flowbite-svelte';
    import { tick } from 'svelte';
    import { toneName, TONES, type ChoiceGiven } from './fields';

    /* The choices of a field in the order they are offered, each with a colour that only repeats what it says. */
    let { choices = $bindable(), problem }: { choices: ChoiceGiven[]; problem: (at: string) => string | undefined } = $props();

    function move(index: number, by: number) {
        const moved = [...choices];
        const [one] = moved.splice(index, 1);
        if (one) moved.splice(index + by, 0, one);
        choices = moved;
    }

    let rows = $state<HTMLElement>();

    /** One more, to be named at once. */
    async function add() {
        choices = [...choices, { label: '', tone: '', closes: false, isRetired: false }];
        await tick();
        [...(rows?.querySelectorAll<HTMLElement>('input[data-choice]') ?? [])].at(-1)?.focus();
    }

    /** Enter goes on to the next one; with nothing in it, it ends the list and keeps the field. */
    function enter(event: KeyboardEvent, index: number) {
        if (event.key !== 'Enter' || event.ctrlKey || event.metaKey || !choices[index]?.label.trim()) return;
        event.preventDefault();
        const next = [...(rows?.querySelectorAll<HTMLElement>('input[data-choice]') ?? [])][index + 1];
        if (next) next.focus();
        else void add();
    }
</script>

<div bind:this={rows} class="mt-1 grid gap-1.5" role="group" aria-label="Choices">
    {#each choices as choice, index (index)}
        <div class="grid grid-cols-[1fr_auto_auto_auto] items-center gap-2 {choice.isRetired ? 'opacity-60' : ''}">
            <Input
                data-choice
                aria-label="Choice {index + 1}"
                maxlength={60}
                placeholder="What it is called"
                bind:value={choice.label}
                onkeydown={(event: KeyboardEvent) => enter(event, index)}
            />
            <span class="flex items-center gap-1" role="group" aria-label="Colour of choice {index + 1}">
                {#each TONES as tone (tone)}<button
                        type="button"
                        class="swatch {tone ? `tone-${tone}` : 'tone-none'}"
                        aria-pressed={choice.tone === tone}
                        aria-label={toneName(tone)}
                        title={toneName(tone)}
                        onclick={() => (choice.tone = tone)}
                    ></button>{/each}
            </span>
            <label class="mini flex items-center gap-1" title="A record with it is done with"
                ><Checkbox class="h-3.5 w-3.5" bind:checked={choice.closes} /> means done</label
            >
            <span class="flex">
                <button type="button" class="icon" aria-label="Higher" disabled={index === 0} onclick={() => move(index, -1)}>↑</button>
                <button type="button" class="icon" aria-label="Lower" disabled={index === choices.length - 1} onclick={() => move(index, 1)}
                    >↓</button
                >
                {#if choice.value}<button
                        type="button"
                        class="icon"
                        aria-label={choice.isRetired ? `Offer ${choice.label} again` : `Retire ${choice.label}`}
                        title={choice.isRetired ? 'Offer it again' : 'Retire it: records keep it, and it is offered no more'}
                        onclick={() => (choice.isRetired = !choice.isRetired)}>{choice.isRetired ? '↺' : '×'}</button
                    >{:else}<button
                        type="button"
                        class="icon"
                        aria-label="Take it away"
                        onclick={() => (choices = choices.filter((_, place) => place !== index))}>×</button
                    >{/if}
            </span>
        </div>
        {#if problem(`/choices/${index}`)}<p class="note-wrong" role="alert">{problem(`/choices/${index}`)}</p>{/if}
    {/each}
    {#if problem('/choices')}<p class="note-wrong" role="alert">{problem('/choices')}</p>{/if}
    <div><button type="button" class="btn" onclick={add}>+ a choice</button></div>
</div>
