<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { tick } from 'svelte';
    import Completions from '../../parts/Completions.svelte';
    import { namedSoFar, peopleNamed } from '../../state/mentions';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import { upload } from '../../api/upload';
    import Area from '../../parts/fields/Area.svelte';
    import FileButton from '../../parts/fields/FileButton.svelte';

    let { type, id, may }: { type: Resources['TypeResource']; id: number; may: boolean } = $props();
    const client = useQueryClient();
    let text = $state('');
    let problem = $state('');
    let busy = $state(false);
    /** A photo that goes with it. */
    let photo = $state.raw<File | null>(null);

    /** Whoever types "@" names somebody: who it can be stands below, and the keys stay with the text. */
    let box = $state<HTMLTextAreaElement>();
    let caret = $state(0);
    let at = $state(0);
    const typed = $derived(namedSoFar(text, caret));
    const offered = $derived(typed === null ? [] : peopleNamed(typed));
    const uid = $props.id();

    async function take(name: string) {
        const person = offered.find((one) => one.name === name);
        if (!person || typed === null) return;
        const from = caret - typed.length;
        text = `${text.slice(0, from)}${person.handle} ${text.slice(caret)}`;
        at = 0;
        await tick();
        box?.focus();
        box?.setSelectionRange(from + person.handle.length + 1, from + person.handle.length + 1);
        caret = box?.selectionStart ?? 0;
    }

    function key(event: KeyboardEvent) {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void write();
        else if (offered.length && ['Enter', 'Tab'].includes(event.key)) void take(offered[at]?.name ?? '');
        else if (offered.length && event.key === 'ArrowDown') at = (at + 1) % offered.length;
        else if (offered.length && event.key === 'ArrowUp') at = (at + offered.length - 1) % offered.length;
        else if (offered.length && event.key === 'Escape') caret = 0;
        else return;
        event.preventDefault();
        event.stopPropagation();
    }

    async function write() {
        if (busy || (text.trim() === '' && !photo)) return;
        busy = true;
        problem = '';
        try {
            if (photo) await upload(`/api/records/${type.name}/${id}/files`, photo);
            photo = null;
            if (text.trim())
                await ask(api.POST('/api/records/{type}/{id}/comments', { params: { path: { type: type.name, id } }, body: { text } }));
            text = '';
            void client.invalidateQueries();
        } catch (thrown) {
            problem = thrown instanceof Refusal ? thrown.message : said(thrown);
        }
        busy = false;
    }
</script>

{#if may}
    <form
        class="border-b border-ruled px-6 py-2.5"
        onsubmit={(event) => {
            event.preventDefault();
            void write();
        }}
    >
        <div class="relative flex items-start gap-2">
            <Area
                class="h-9 min-h-9 flex-1 resize-none focus:h-20"
                aria-label="Comment"
                placeholder="Write a comment; @ names somebody"
                maxlength={5000}
                bind:value={text}
                bind:elementRef={box}
                aria-controls={offered.length ? uid : undefined}
                aria-activedescendant={offered.length ? `${uid}-${at}` : undefined}
                aria-autocomplete="list"
                onkeydown={key}
                oninput={() => ([caret, at] = [box?.selectionStart ?? 0, 0])}
                onclick={() => (caret = box?.selectionStart ?? 0)}
                onblur={() => (caret = 0)}
            />
            {#if offered.length}<Completions
                    id={uid}
                    offers={offered.map((person) => person.name)}
                    chosen={at}
                    ontake={(name) => void take(name)}
                    class="absolute top-full left-0 z-20 w-64"
                />{/if}
            {#if photo}<button type="button" class="chip max-w-40 truncate" title="Leave it out" onclick={() => (photo = null)}
                    >{photo.name} ×</button
                >{:else}<FileButton says="Photo" accept="image/*" {busy} onchoose={(file) => (photo = file)} />{/if}
            {#if text.trim() || photo}<button class="btn" disabled={busy} title="Ctrl Enter">Comment</button>{/if}
        </div>
        {#if problem}<p class="note-wrong" role="alert">{problem}</p>{/if}
    </form>
{/if}
