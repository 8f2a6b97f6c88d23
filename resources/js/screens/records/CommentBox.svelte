<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said, type Shapes } from '../../api/client';
    import { upload } from '../../api/upload';
    import Area from '../../parts/fields/Area.svelte';
    import FileButton from '../../parts/fields/FileButton.svelte';

    let { type, id, may }: { type: Shapes['TypeShape']; id: number; may: boolean } = $props();
    const client = useQueryClient();
    let text = $state('');
    let problem = $state('');
    let busy = $state(false);
    /** A photo that goes with it. */
    let photo = $state.raw<File | null>(null);

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
        <div class="flex items-start gap-2">
            <Area
                class="h-9 min-h-9 flex-1 resize-none focus:h-20"
                aria-label="Comment"
                placeholder="Write a comment"
                maxlength={5000}
                bind:value={text}
                onkeydown={(event) => {
                    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
                        event.preventDefault();
                        void write();
                    }
                }}
            />
            {#if photo}<button type="button" class="chip max-w-40 truncate" title="Leave it out" onclick={() => (photo = null)}
                    >{photo.name} ×</button
                >{:else}<FileButton says="Photo" accept="image/*" {busy} onchoose={(file) => (photo = file)} />{/if}
            {#if text.trim() || photo}<button class="btn" disabled={busy} title="Ctrl Enter">Comment</button>{/if}
        </div>
        {#if problem}<p class="note-wrong" role="alert">{problem}</p>{/if}
    </form>
{/if}
