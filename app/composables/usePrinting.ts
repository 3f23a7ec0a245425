import { wrap, type Remote } from 'comlink'
import { PAPERS, type Paper, type Print } from '../print/sheet'
import { saveBlob } from '../lib/save'
import type { PrintWork } from '../workers/print'

let worker: Remote<PrintWork> | null = null

function workerAtHand(): Remote<PrintWork> {
  worker ??= wrap<PrintWork>(new Worker(new URL('../workers/print.ts', import.meta.url), { type: 'module' }))
  return worker
}

/** Makes documents into PDF files beside the page, and hands them over. `busy` names the one that is being made. */
export function usePrinting(usual: () => Paper) {
  const chosen = ref<Paper | null>(null)
  const paper = computed({ get: () => chosen.value ?? usual(), set: (p: Paper) => (chosen.value = p) })
  const busy = ref<string | null>(null)
  const failed = ref('')
  async function print(name: string, made: () => Print | Promise<Print>, file: string): Promise<void> {
    if (busy.value !== null) return
    busy.value = name
    failed.value = ''
    try {
      const bytes = await workerAtHand().render(await made())
      saveBlob(`${file}.pdf`, new Blob([bytes as BlobPart], { type: 'application/pdf' }))
    } catch (error) {
      failed.value = error instanceof Error ? error.message : String(error)
    } finally {
      busy.value = null
    }
  }
  return { paper, papers: PAPERS, busy, failed, print }
}
