<script lang="ts">
    import Choose from './Choose.svelte';
    import { mergeOptions } from './offers';

    type Props = { type: string; title: string; label?: string; long?: boolean; most?: number; ondone: (title: string) => void };
    let { type, title, label = 'Title of the task', long = false, most = 200, ondone }: Props = $props();
    // svelte-ignore state_referenced_locally
    let typed = $state(title);
    let input = $state<HTMLInputElement | HTMLTextAreaElement>();
    let merging = $state(false);

    function merge(path: string | undefined) {
        const where = input?.selectionStart ?? typed.length;
        typed = `${typed.slice(0, where)}{${path}}${typed.slice(input?.selectionEnd ?? where)}`;
        merging = false;
        input?.focus();
    }

    function done(event: SubmitEvent) {
        event.preventDefault();
        ondone(typed.trim());
    }
</script>

<form class="w-[380px]" onsubmit={done}>
    <div class="flex items-baseline px-4 pt-3">
        <label class="text-[12.5px] text-ink-2" for="title">{label}</label>
        <span class="figures mini ml-auto" class:text-madder={typed.length > most}>{typed.length} / {most}</span>
    </div>
    <div class="px-4 pt-1 pb-2">
        {#if long}
            <!-- svelte-ignore a11y_autofocus -->
            <textarea
                id="title"
                class="input h-24"
                bind:this={input}
                bind:value={typed}
                onkeydown={(event) => event.key === 'Enter' && (event.ctrlKey || event.metaKey) && ondone(typed.trim())}
                autofocus></textarea>
        {:else}
            <!-- svelte-ignore a11y_autofocus -->
            <input id="title" class="input" bind:this={input} bind:value={typed} placeholder="Ring …" autocomplete="off" autofocus />
        {/if}
        <button type="button" class="btn quiet mt-1" onclick={() => (merging = !merging)}>+ merge a field</button>
    </div>
    {#if merging}
        <div class="border-t border-ruled">
            <Choose title="Merge" options={mergeOptions(type)} onchoose={([path]) => merge(path)} onclose={() => (merging = false)} />
        </div>
    {/if}
    <div class="keys">
        <span><kbd>{long ? 'Ctrl Enter' : 'Enter'}</kbd>done</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto">Done</button
        >
    </div>
</form>
