export { reportsApi } from './contract.ts'
export type { Report, ReportLink, ReportMailing } from './contract.ts'
export { REPORT_CHART_PX, reportDocument, reportHeadlines, reportSubtitle } from './document.ts'
export type { ReportDocument, ReportFigure, ReportPart } from './document.ts'
export { lookOfStyle, PLAIN_REPORT_LOOK } from './look.ts'
export type { DrawnLook } from './look.ts'
export { dataOf, failedIn, questionsIn, reportData } from './made.ts'
export type { FailedQuestion, MadeQuestion, MadeReport, MadeSection, ReportData } from './made.ts'
export { mailingInWords, mailingSettings, recurrenceOf } from './mailing.ts'
export type { MailingEvery, MailingSettings } from './mailing.ts'
export { reportCss, reportPage } from './page.ts'
export type { PageDrawing } from './page.ts'
export {
  questionsOf,
  readStoredReport,
  REPORT_BLOCKS_MAX,
  REPORT_FILE_NAMES,
  REPORT_FILES,
  REPORT_QUESTIONS_MAX,
  REPORT_ROWS_MAX,
  reportContent,
  reportQuestion,
} from './report.ts'
export type {
  DrawnAs,
  ReportBlock,
  ReportContent,
  ReportFile,
  ReportQuestion,
  ReportWords,
} from './report.ts'
export { reportFileName, reportTables, sheetNames } from './tables.ts'
export type { ReportTable } from './tables.ts'
export { ofQuestion, ofReport } from './scope.ts'
export type { ReportOwner } from './scope.ts'
