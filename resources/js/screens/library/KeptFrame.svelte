<script lang="ts" generics="T extends Draft, Item extends { id: number }">
    import { Input } from 'flowbite-svelte';
    import type { Snippet } from 'svelte';
    import Broken from '../../parts/Broken.svelte';
    import Confirm from '../../parts/Confirm.svelte';
    import { takesFocus } from '../../parts/focus';
    import { isWide } from '../../state/places';
    import { session } from '../../state/session.svelte';
    import type { Draft, Kept } from './kept.svelte';

    /** The frame of what is kept in Setup: what there is on the left, the one that is open on the right. */
    type Props = {
        kept: Kept<T>;
        title: string;
        sub: string;
        items: Item[] | undefined;
        fresh: string;
        onnew: () => void;
        onopen: (item: Item) => void;
        onkeep: () => void;
        ondelete: () => void;
        /** What is said of a list without anything on it, of no choice yet, and of what is lost by deleting. */
        none: [string, string];
        idle: [string, string];
        loses: string;
        keeps?: string;
        row: Snippet<[Item]>;
        /** Beside the name. */
        besides?: Snippet<[T]>;
        editor: Snippet<[T]>;
        foot?: Snippet<[T]>;
    };
    let {
        kept,
        title,
        sub,
        items,
        fresh,
        onnew,
        onopen,
        onkeep,
        ondelete,
        none,
        idle,
        loses,
        keeps = 'Save',
        row,
        besides,
        editor,
        foot,
    }: Props = $props();
    const may = $derived(session.me?.mayEditRules ?? false);
    // Half a desk is not left empty; a phone shows the list.
    $effect(() => kept.openFirst(isWide() ? items : undefined, (first) => (first ? onopen(first) : may && onnew())));
    const problems = $derived(kept.refusal?.problem.problems ?? []);
</script>

<div class="spread grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div>
                <h1>{title}</h1>
                <p class="sub">{sub}</p>
            </div>
            {#if may}<button type="button" class="btn go ml-auto shrink-0" onclick={onnew}>{fresh}</button>{/if}
        </header>
        <div class="scroll">
            {#each items ?? [] as item (item.id)}
                <svelte:boundary>
                    <button
                        type="button"
                        class="block w-full border-b border-ruled px-7 py-3 text-left text-[13px] hover:bg-lit {kept.editing?.id === item.id
                            ? 'bg-picked'
                            : ''}"
                        aria-pressed={kept.editing?.id === item.id}
                        onclick={() => onopen(item)}
                    >
                        {@render row(item)}
                    </button>
                    {#snippet failed()}<Broken />{/snippet}
                </svelte:boundary>
            {:else}
                {#if items}<div class="empty">
                        <h2>{none[0]}</h2>
                        <p>{none[1]}</p>
                    </div>{/if}
            {/each}
        </div>
    </section>
    <section class="leaf right">
        {#if kept.editing}
            {@const edited = kept.editing}
            <form
                class="flex min-h-0 flex-1 flex-col"
                onsubmit={(event) => {
                    event.preventDefault();
                    onkeep();
                }}
            >
                <header class="flex shrink-0 items-center gap-2 border-b border-ruled px-7 py-4">
                    <Input
                        class="max-w-64"
                        aria-label="Name"
                        placeholder="Its name"
                        maxlength={60}
                        bind:value={edited.name}
                        disabled={!may}
                        aria-invalid={kept.problem('/name') ? true : undefined}
                        {@attach (node) => {
                            if (edited.id === null) takesFocus(node);
                        }}
                    />
                    {@render besides?.(edited)}
                    {#if may}
                        <span class="ml-auto flex shrink-0 gap-2">
                            {#if edited.id !== null}<button type="button" class="btn" onclick={() => (kept.deleting = true)}>Delete…</button
                                >{/if}
                            <button class="btn go">{keeps}</button>
                        </span>
                    {/if}
                </header>
                <!-- What nobody may change is read, also by the keyboard. -->
                <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
                <fieldset class="scroll px-7 py-4 text-[13px]" disabled={!may} tabindex={may ? undefined : 0}>
                    {#each problems as one (one.at)}<p class="callout bad mb-2" role="alert">{one.message}</p>
                    {:else}{#if kept.refusal}<p class="callout bad mb-2" role="alert">{kept.refusal.message}</p>{/if}{/each}
                    {@render editor(edited)}
                </fieldset>
                {@render foot?.(edited)}
            </form>
        {:else if items?.length}
            <div class="empty">
                <h2>{idle[0]}</h2>
                <p>{idle[1]}</p>
            </div>
        {/if}
    </section>
</div>

{#if kept.deleting && kept.editing}
    <Confirm title="Delete “{kept.editing.name}”?" go="Delete" danger onconfirm={ondelete} onclose={() => (kept.deleting = false)}>
        <p>{loses}</p>
    </Confirm>
{/if}
